import { getHeader, type H3Event } from 'h3';
import { config } from '../config';

/**
 * The address that a request comes from. Behind proxies that the settings name, the last one in `X-Forwarded-For` that is none of
 * them; what other clients write there is not believed.
 */
export function addressOf(event: H3Event): string {
  const direct = event.node.req.socket.remoteAddress ?? '';
  const proxies = config.proxies;
  if (!proxies.has(direct)) return direct;
  const hops = (getHeader(event, 'x-forwarded-for') ?? '').split(',').map((each) => each.trim());
  return (
    hops
      .reverse()
      .find((each) => each !== '' && !proxies.has(each))
      ?.slice(0, 100) ?? direct
  );
}
