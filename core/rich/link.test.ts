import { expect, it } from 'vitest';
import { LINK } from './link';

it.each([
  'https://orrin-vale.example',
  'http://orrin-vale.example:8080/terms?of=2026#page',
  'HTTPS://Orrin-Vale.example/a@b',
  'https://münchen.example/straße',
  'https://[2001:db8::1]/x',
  'mailto:sales@orrin-vale.example',
  'mailto:sales@orrin-vale.example?subject=Quote',
  'tel:+44-5550-0100',
  'tel:5550100;ext=12',
])('%s may be a link', (address) => {
  expect(LINK.test(address)).toBe(true);
});

it.each([
  ['a script', 'javascript:alert(1)'],
  ['a script with a blank before it', ' javascript:alert(1)'],
  ['a script under another', 'https:javascript:alert(1)'],
  ['data', 'data:text/html,x'],
  ['a file', 'file:///etc/passwd'],
  ['no host', 'https:///etc'],
  ['a host without its slashes', 'https:orrin-vale.example'],
  ['a name before the host', 'https://orrin-vale.example@elsewhere.example'],
  ['a backslash for a slash', 'https://orrin-vale.example\\@elsewhere.example'],
  ['a line end', 'https://orrin-vale.example\n.elsewhere.example'],
  ['a blank', 'https://orrin-vale.example/a b'],
  ['NUL', 'https://orrin-vale.example/\0'],
  ['a turned direction', 'https://orrin-vale.example/\u202egpj.exe'],
  ['a character of no width', 'https://orrin\u200b-vale.example'],
  ['a mailbox without a place', 'mailto:sales'],
  ['a telephone of letters', 'tel:javascript'],
  ['a web page after a line', 'x\nhttps://orrin-vale.example'],
])('%s is none', (_, address) => {
  expect(LINK.test(address)).toBe(false);
});
