import { randomBytes } from 'node:crypto';
import pages from '#built-pages';
import { removeResponseHeader, setResponseHeader, type H3Event } from 'h3';
import { hintsOf } from '../edge/page-hints';
import { pagePolicy } from '../edge/page-policy';
import { hasSession } from '../edge/who';

/** The parts of a page as the framework hands them over before it sends them. */
interface PageParts {
  head: string[];
  bodyPrepend: string[];
  body: string[];
  bodyAppend: string[];
}

interface Hooks {
  hook(name: 'render:html', change: (page: PageParts, around: { event: H3Event }) => void): void;
  hook(name: 'beforeResponse', change: (event: H3Event) => void): void;
}

/**
 * Tells with each page what it needs, gives it a nonce of its own for the scripts within it, and says nothing of what Lumbix is
 * built with.
 */
export default ({ hooks }: { hooks: Hooks }): void => {
  const hints = hintsOf(pages);
  hooks.hook('render:html', (page, { event }) => {
    const nonce = randomBytes(16).toString('base64');
    const withNonce = (parts: string[]) => parts.map((part) => part.replaceAll('<script', `<script nonce="${nonce}"`));
    page.head = withNonce(page.head);
    page.bodyPrepend = withNonce(page.bodyPrepend);
    page.body = withNonce(page.body);
    page.bodyAppend = withNonce(page.bodyAppend);
    page.head.push(hints(event.path, hasSession(event)));
    setResponseHeader(event, 'Content-Security-Policy', pagePolicy(nonce));
  });
  hooks.hook('beforeResponse', (event) => removeResponseHeader(event, 'x-powered-by'));
};
