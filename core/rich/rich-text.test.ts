import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { cleanHtml, isEditable, plainText, richBlocks } from './rich-text';

describe('a formatted text that is changed', () => {
  it('is written with nothing but what is printed of it', () => {
    expect(cleanHtml('<p onclick="x">A &lt;b <b><i>c</i></b><script>x</script></p><ul><li>1</li></ul><h4>H</h4>')).toBe(
      '<p>A &lt;b <em><strong>c</strong></em></p><ul><li>1</li></ul><h2>H</h2>',
    );
    expect(cleanHtml('<p><a href="https://a.example?b=1&amp;c=2">A</a><br>B</p>')).toBe(
      '<p><a href="https://a.example?b=1&amp;c=2">A</a><br>B</p>',
    );
  });

  it('prints the same after it as before', () => {
    const word = fc.constantFrom(
      'a',
      ' ',
      '<b>b</b>',
      '<i>c <u>d</u></i>',
      '&lt;',
      '<br>',
      '<p>e</p>',
      '<ol><li>f</li></ol>',
      '<h3>g</h3>',
    );
    fc.assert(
      fc.property(fc.array(word), (words) => {
        const html = words.join('');
        expect(richBlocks(cleanHtml(html))).toEqual(richBlocks(html));
      }),
    );
  });

  it('can be changed here where it has no more than that in it', () => {
    expect(isEditable('<p>a <strong>b</strong></p><ul><li>c</li></ul>')).toBe(true);
    expect(isEditable('<p>a</p><script>alert(1)</script>')).toBe(true);
    expect(isEditable('<p>a</p><table><tr><td>b</td></tr></table>')).toBe(false);
    expect(isEditable('<p><img src="x"></p>')).toBe(false);
  });
});

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
