import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { plainText, richBlocks } from './rich-text';

describe('a formatted text', () => {
  it('keeps paragraphs, headings, lists, marks and safe links', () => {
    expect(
      richBlocks(
        '<h2>Site</h2><p>On the <b>south <i>terrace</i></b>.<br>Level.</p><ol><li>One</li><li><u>Two</u></li></ol><p><a href="https://a.example">A</a></p>',
      ),
    ).toEqual([
      { kind: 'heading', runs: [{ kind: 'text', text: 'Site' }] },
      {
        kind: 'paragraph',
        runs: [
          { kind: 'text', text: 'On the ' },
          { kind: 'text', text: 'south ', bold: true },
          { kind: 'text', text: 'terrace', bold: true, italic: true },
          { kind: 'text', text: '.' },
          { kind: 'break' },
          { kind: 'text', text: 'Level.' },
        ],
      },
      {
        kind: 'list',
        numbered: true,
        items: [[{ kind: 'text', text: 'One' }], [{ kind: 'text', text: 'Two', underline: true }]],
      },
      { kind: 'paragraph', runs: [{ kind: 'text', text: 'A', link: 'https://a.example' }] },
    ]);
  });

  it('leaves out what runs or loads, and what is no link', () => {
    const html =
      '<p>a<script>alert(1)</script><style>p{}</style><img src=x onerror=alert(1)><iframe>x</iframe> b <a href="javascript:alert(1)">c</a></p>';
    expect(richBlocks(html)).toEqual([
      {
        kind: 'paragraph',
        runs: [
          { kind: 'text', text: 'a' },
          { kind: 'text', text: ' b ' },
          { kind: 'text', text: 'c' },
        ],
      },
    ]);
  });

  it('reads lists in lists as one, plain text as a paragraph, and nothing as nothing', () => {
    expect(plainText('<ul><li>a<ul><li>b</li></ul></li><li>c</li></ul>')).toBe('a\nb\nc');
    expect(plainText('1 &lt; 2 &amp; 3')).toBe('1 < 2 & 3');
    expect(richBlocks('<p> </p><ul></ul><div></div>')).toEqual([]);
  });

  it('never fails and never has an empty block, whatever is typed', () => {
    fc.assert(
      fc.property(
        fc.string(),
        fc.constantFrom('<b>', '</p>', '<ul><li>', '<script', '&#x;', '<!--', '</ul>'),
        (text, piece) => {
          for (const block of richBlocks(`${text}${piece}${text}`))
            expect(block.kind === 'list' ? block.items.length : block.runs.length).toBeGreaterThan(0);
        },
      ),
    );
  });
});
