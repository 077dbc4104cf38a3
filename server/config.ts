import { join } from 'node:path';
import { now } from './clock';

/** Where things are, from the environment that the start command sets. */
export const config = {
  get databaseUrl(): string {
    return required('DATABASE_URL');
  },
  /** How the CRM is called until a person says otherwise in Setup. */
  get crm() {
    return {
      url: required('CRM_URL'),
      clientId: process.env.CRM_CLIENT_ID ?? 'lumbix',
      clientSecret: process.env.CRM_CLIENT_SECRET ?? 'local-only',
    };
  },
  /** Further names that Lumbix is asked for by, with commas between them. */
  get hosts(): string {
    return process.env.LUMBIX_HOSTS ?? '';
  },
  /** Whether the accounts of the demo are there. */
  get isDemo(): boolean {
    return process.env.LUMBIX_DEMO === 'yes';
  },
  /** Proxies in front of Lumbix whose `X-Forwarded-For` is believed: their addresses, with commas between them. */
  get proxies(): ReadonlySet<string> {
    return new Set(
      (process.env.LUMBIX_PROXIES ?? '')
        .split(',')
        .map((each) => each.trim())
        .filter(Boolean),
    );
  },
  /** Whether people reach Lumbix by https, so that its cookie goes no other way. */
  get isSecure(): boolean {
    return process.env.LUMBIX_HTTPS === 'yes';
  },
  /** How many times as often as usual one may ask. */
  get rateFactor(): number {
    return Number(process.env.LUMBIX_RATE_FACTOR) || 1;
  },
  /** The folder with bundled workers, fonts and the typesetting program. */
  get buildFolder(): string {
    return process.env.LUMBIX_BUILD ?? join(process.cwd(), '.build');
  },
  /** The folder under which copies of documents are kept, where a place is one. */
  get copiesFolder(): string {
    return process.env.LUMBIX_COPIES ?? join(process.cwd(), '.data', 'copies');
  },
  /** Where the storage that stands in for an outside one answers, in the demo. */
  get demoStorageUrl(): string | undefined {
    const { STORAGE_PORT } = process.env;
    return STORAGE_PORT ? `http://127.0.0.1:${STORAGE_PORT}` : undefined;
  },
  /** Where people reach Lumbix, for links that lead to it from elsewhere. */
  get publicUrl(): string {
    return required('LUMBIX_URL').replace(/\/+$/, '');
  },
  /** After so many seconds a job whose worker is gone is taken up by another one: longer than any step takes within its bounds. */
  get jobExpiry(): number {
    return Number(process.env.LUMBIX_JOB_EXPIRY) || 25;
  },
  /** IANA time zone in which a document's day of issue is told. */
  get timeZone(): string {
    return process.env.LUMBIX_TIME_ZONE ?? 'Europe/London';
  },
};

function required(name: string): string {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set; start Lumbix with ./start.`);
  return value;
}

/** Making a format takes longer than using it. */
let days: { timeZone: string; format: Intl.DateTimeFormat } | undefined;

/** Today's ISO 8601 day in the company's time zone. */
export function today(): string {
  const { timeZone } = config;
  if (days?.timeZone !== timeZone) days = { timeZone, format: new Intl.DateTimeFormat('en-CA', { timeZone }) };
  return days.format.format(now());
}
