import { randomBytes } from 'node:crypto';
import { removeResponseHeader, setResponseHeader, type H3Event } from 'h3';
import { pagePolicy } from '../edge/page-policy';

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

/** Gives each page a nonce of its own for the scripts within it, and says nothing of what Lumbix is built with. */
export default ({ hooks }: { hooks: Hooks }): void => {
  hooks.hook('render:html', (page, { event }) => {
    const nonce = randomBytes(16).toString('base64');
    const withNonce = (parts: string[]) => parts.map((part) => part.replaceAll('<script', `<script nonce="${nonce}"`));
    page.head = withNonce(page.head);
    page.bodyPrepend = withNonce(page.bodyPrepend);
    page.body = withNonce(page.body);
    page.bodyAppend = withNonce(page.bodyAppend);
    setResponseHeader(event, 'Content-Security-Policy', pagePolicy(nonce));
  });
  hooks.hook('beforeResponse', (event) => removeResponseHeader(event, 'x-powered-by'));
};
