import { zipSync, strToU8 } from 'fflate';
import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { demoMedia } from '../../demo/crm/media';
import { lookOver } from './look-over';
import { unpackedText } from './unpack';

const svg = (inside: string, attributes = 'viewBox="0 0 40 20"') =>
  strToU8(
    `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${attributes}>${inside}</svg>`,
  );
const png = new Uint8Array(
  new Resvg('<svg xmlns="http://www.w3.org/2000/svg" width="30" height="12"><rect width="9" height="9"/></svg>')
    .render()
    .asPng(),
);

/** The same PNG with another size in its IHDR chunk (ISO/IEC 15948, 11.2.2). */
function claiming(width: number, height: number): Uint8Array {
  const bytes = png.slice();
  const view = new DataView(bytes.buffer);
  view.setUint32(16, width);
  view.setUint32(20, height);
  return bytes;
}

describe('a picture', () => {
  it('is known by its bytes, with its size', async () => {
    expect(await lookOver(png)).toEqual({ mediaType: 'image/png', width: 30, height: 12 });
    expect(await lookOver(svg('<path d="M0 0h9"/>'))).toEqual({ mediaType: 'image/svg+xml', width: 40, height: 20 });
  });

  it('of the demo is taken', async () => {
    for (const { type, content } of Object.values(demoMedia()))
      expect((await lookOver(new Uint8Array(content))).mediaType).toBe(type);
  });

  it.each([
    ['a script', '<script>alert(1)</script>', /holds “script”/],
    ['a handler', '<rect onload="alert(1)"/>', /runs a script at “onload”/],
    ['foreign content', '<foreignObject><p>x</p></foreignObject>', /holds “foreignObject”/],
    ['a picture from elsewhere', '<image href="http://elsewhere.example/a.png"/>', /holds “image”/],
    ['a use of something elsewhere', '<use xlink:href="http://elsewhere.example/a.svg#x"/>', /outside of itself/],
    ['a use of a file', '<use href="file:///etc/passwd"/>', /outside of itself/],
    ['a fill from elsewhere', '<rect fill="url(http://elsewhere.example/p)"/>', /outside of itself/],
    ['a style from elsewhere', '<style>@import url(//elsewhere.example/x.css);</style>', /outside of itself/],
    ['an animation', '<animate attributeName="x"/>', /holds “animate”/],
    [
      'a script under another prefix',
      '<x:script xmlns:x="http://www.w3.org/2000/svg">alert(1)</x:script>',
      /holds “script”/,
    ],
    ['a script of XHTML', '<h:script xmlns:h="http://www.w3.org/1999/xhtml">1</h:script>', /holds “h:script”/],
    ['a script in notes', '<metadata><h:p xmlns:h="http://www.w3.org/1999/xhtml"/></metadata>', /holds “h:p”/],
    ['a script within foreign notes', '<n:x xmlns:n="urn:notes"><script>1</script></n:x>', /holds “script”/],
    ['a prefix that nothing declares', '<n:x/>', /holds “n:x”/],
    ['a link under another prefix', '<use y:href="//e.example/#x" xmlns:y="http://www.w3.org/1999/xlink"/>', /outside/],
    ['a spelled-out script', '<use href="&#106;avascript:alert(1)"/>', /outside of itself/],
    ['an escape in a style', '<rect style="fill:\\75rl(http://e.example)"/>', /backslash in a style/],
    ['an escape in a sheet', '<style>rect{fill:\\75 rl(//e.example)}</style>', /backslash in a style/],
    ['a comment in a function', '<rect style="fill:url(/* */ //e.example/a)"/>', /outside of itself/],
    ['a set of pictures', '<rect style="mask:image-set(\'a.png\' 1x)"/>', /calls “image-set”/],
    ['an old script in a style', '<rect style="width:expression(alert(1))"/>', /calls “expression”/],
    ['a binding', '<rect style="-x-binding:url(data:text/xml,a)"/>', /outside of itself/],
    ['a font from elsewhere', '<style>@font-face{src:url(#a)}</style>', /outside of itself/],
    ['an attribute that draws nothing', '<rect formaction="x"/>', /says “formaction”/],
    ['a link', '<a href="javascript:alert(1)"><rect/></a>', /holds “a”/],
  ])('that is an SVG with %s is refused', async (_, inside, reason) => {
    await expect(lookOver(svg(inside))).rejects.toThrow(reason);
  });

  it('brings no style sheet along', async () => {
    const sheet = '<?xml-stylesheet href="http://e.example/x.css"?>';
    await expect(
      lookOver(strToU8(`<?xml version="1.0"?>${sheet}<svg xmlns="http://www.w3.org/2000/svg"/>`)),
    ).rejects.toThrow('xml-stylesheet');
    await expect(lookOver(svg(`<g>${sheet}</g>`))).rejects.toThrow('xml-stylesheet');
  });

  it('may have notes of the program it was drawn with, and any look that draws', async () => {
    const notes = 'xmlns:n="urn:notes" n:version="1" xml:space="preserve" data-name="Layer(2)" aria-label="y"';
    const looks = '<style>/* look */ .a{fill:rgb(1,2,3);stroke:url(#s);transform:rotate(3deg)}</style>';
    const drawing = `${looks}<metadata xmlns:n="urn:notes"><n:note n:href="https://e.example">x</n:note></metadata><rect class="a" ${notes} fill-opacity=".5"/>`;
    expect(await lookOver(svg(drawing))).toMatchObject({ mediaType: 'image/svg+xml' });
    const prefixed = '<s:svg xmlns:s="http://www.w3.org/2000/svg" viewBox="0 0 4 4"><s:path d="M0 0h1"/></s:svg>';
    expect(await lookOver(strToU8(`<?xml version="1.0"?>${prefixed}`))).toMatchObject({ width: 4 });
  });

  it('of tens of thousands of groups in one another is refused', async () => {
    const deep = svg('<g>'.repeat(40_000) + '</g>'.repeat(40_000));
    await expect(lookOver(deep)).rejects.toThrow('nested more than 500 levels deep');
  });

  it('may refer to itself', async () => {
    expect(await lookOver(svg('<defs><g id="x"/></defs><use href="#x" fill="url(#y)"/>'))).toBeTruthy();
  });

  it.each([
    [
      'entities',
      '<!DOCTYPE svg [<!ENTITY a "aaaa">]><svg xmlns="http://www.w3.org/2000/svg"><text>&a;</text></svg>',
      /entities/,
    ],
    ['a broken end', '<svg xmlns="http://www.w3.org/2000/svg"><g></svg>', /damaged/],
    ['words', 'Just words.', /neither a PNG, a JPEG, an SVG nor a PDF/],
    ['nothing', '', /empty/],
  ])('of %s is refused', async (_, source, reason) => {
    await expect(lookOver(strToU8(source))).rejects.toThrow(reason);
  });

  it('of 30,000 pixels is refused before it is unpacked', async () => {
    await expect(lookOver(claiming(30_000, 30_000))).rejects.toThrow('30000 × 30000 pixels');
    await expect(lookOver(claiming(9_000, 9_000))).rejects.toThrow('40 million');
  });

  it('that is cut off is refused', async () => {
    await expect(lookOver(png.slice(0, -20))).rejects.toThrow('cut off');
    await expect(lookOver(new Uint8Array([0xff, 0xd8, 0xff, 0xe0, 0, 4, 0, 0]))).rejects.toThrow('cut off');
  });

  it('is not a ZIP archive, nor a damaged PDF', async () => {
    await expect(lookOver(zipSync({ 'a.png': png }))).rejects.toThrow('ZIP archive');
    await expect(lookOver(strToU8('%PDF-1.7 nothing more'))).rejects.toThrow('damaged');
  });
});

describe('a template’s archive', () => {
  it('gives its one file', () => {
    expect(unpackedText(strToU8('{"a":1}'))).toBe('{"a":1}');
    expect(unpackedText(zipSync({ 'a.json': strToU8('{"a":1}') }))).toBe('{"a":1}');
  });

  it('that unpacks without end is stopped', () => {
    const bomb = zipSync({ 'a.json': new Uint8Array(200_000_000) }, { level: 9 });
    expect(bomb.length).toBeLessThan(400_000);
    expect(() => unpackedText(bomb)).toThrow('more than 30 MB');
  });

  it('of several files, or a damaged one, is refused', () => {
    expect(() => unpackedText(zipSync({ a: strToU8('1'), b: strToU8('2') }))).toThrow('more than one file');
    expect(() => unpackedText(new Uint8Array([0x50, 0x4b, 3, 4, 9, 9]))).toThrow('archive');
  });
});
