import { defineEventHandler, getHeader, setResponseHeader } from 'h3';
import { config } from '../config';
import { admit, knownHosts } from '../edge/admission';
import { ANSWER_POLICY } from '../edge/page-policy';
import { sendProblem } from '../problem';

const hosts = knownHosts(config.hosts);

/** Lets requests in or answers them with the reason why not, before any route sees them. */
export default defineEventHandler((event) => {
  setResponseHeader(event, 'Content-Security-Policy', ANSWER_POLICY);
  try {
    admit(
      {
        method: event.method,
        host: getHeader(event, 'host'),
        origin: getHeader(event, 'origin'),
        fetchSite: getHeader(event, 'sec-fetch-site'),
        fetchMode: getHeader(event, 'sec-fetch-mode'),
        contentType: getHeader(event, 'content-type'),
        hasBody:
          getHeader(event, 'transfer-encoding') !== undefined || Number(getHeader(event, 'content-length') ?? 0) > 0,
      },
      hosts,
    );
  } catch (thrown) {
    return sendProblem(event, thrown);
  }
});
