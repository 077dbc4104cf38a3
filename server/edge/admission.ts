/**
 * Which requests are let in before any route sees them. A foreign web page that a person has open beside Lumbix can send
 * requests from that person's browser; the browser says so in `Origin` and `Sec-Fetch-Site`, and they are refused here.
 */
import { Problem } from '../problem';

/** What a request says of itself in its headers. */
export interface RequestHead {
  method: string;
  host?: string;
  origin?: string;
  /** `Sec-Fetch-Site` and `Sec-Fetch-Mode` (W3C Fetch Metadata): absent from programs that are no browsers. */
  fetchSite?: string;
  fetchMode?: string;
  contentType?: string;
  hasBody: boolean;
}

/** Methods that change nothing (RFC 9110, 9.2.1). */
const SAFE_METHODS = new Set(['GET', 'HEAD', 'OPTIONS']);
/** Bodies that a foreign page cannot send without asking first, and that routes read. */
const MEDIA_TYPES = new Set(['application/json', 'application/octet-stream']);

/** Refuses a request that is not let in. `hosts`: the names that this Lumbix is known by. @throws Problem */
export function admit(head: RequestHead, hosts: ReadonlySet<string>): void {
  const name = hostName(head.host);
  if (name === undefined || !hosts.has(name))
    throw new Problem(
      421,
      'Lumbix is not known by this name',
      'Ask for it by the name that it was set up with, or add this one to LUMBIX_HOSTS and start it again.',
    );
  const isSafe = SAFE_METHODS.has(head.method);
  if (isForeign(head) && !(isSafe && head.fetchMode === 'navigate')) throw foreign();
  if (!isSafe && head.origin !== undefined && originHost(head.origin) !== head.host?.toLowerCase()) throw foreign();
  if (!isSafe && head.hasBody && !MEDIA_TYPES.has(mediaType(head.contentType)))
    throw new Problem(415, 'This kind of body is not read', 'Send JSON as application/json, or a file as octets.');
}

/** The names by which Lumbix on this machine is always known, and those that a setting adds, with commas between them. */
export function knownHosts(setting = ''): ReadonlySet<string> {
  const added = setting.split(',').map((each) => each.trim().toLowerCase());
  return new Set(['localhost', '127.0.0.1', '[::1]', ...added.filter(Boolean)]);
}

const foreign = () =>
  new Problem(
    403,
    'This came from another site',
    'Only Lumbix’s own pages may ask for this. Open Lumbix and do it there.',
  );

/** Another port of the same name is another site here, though browsers call it the same. */
const isForeign = ({ fetchSite }: RequestHead) =>
  fetchSite !== undefined && fetchSite !== 'same-origin' && fetchSite !== 'none';

/** A host without its port; undefined for what is no host. */
function hostName(host: string | undefined): string | undefined {
  return /^(\[[\da-f:.]+\]|[\w.-]+)(:\d+)?$/i.exec(host ?? '')?.[1]?.toLowerCase();
}

/** The host of an origin, with its port where that is not the scheme's own; undefined for `null` and what is no origin. */
function originHost(origin: string): string | undefined {
  return /^https?:\/\/([^/?#@\\]+)$/i.exec(origin)?.[1]?.toLowerCase();
}

const mediaType = (contentType = '') => contentType.split(';')[0]!.trim().toLowerCase();
