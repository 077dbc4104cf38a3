/**
 * Addresses that a printed link may lead to: a web page, a mailbox, a telephone. Nothing may be hidden in one: no name and
 * password before the host, no character that does not show or turns the direction of reading (Unicode's category C), no blank.
 */
const WEB = /^https?:\/\/[^\s\p{C}/?#@\\]+(?:[/?#][^\s\p{C}\\]*)?$/iu;
const MAIL = /^mailto:[^\s\p{C}@\\]+@[^\s\p{C}@\\]+$/iu;
const TELEPHONE = /^tel:\+?[\d().-]+(?:;[\w=+.-]+)*$/i;

export const LINK = new RegExp([WEB, MAIL, TELEPHONE].map(({ source }) => source).join('|'), 'iu');
