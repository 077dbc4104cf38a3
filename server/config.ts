import { join } from 'node:path';

/** Where things are, from the environment that the start command sets. */
export const config = {
  get databaseUrl(): string {
    return required('DATABASE_URL');
  },
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
  /** The folder with bundled workers, fonts and the typesetting program. */
  get buildFolder(): string {
    return process.env.LUMBIX_BUILD ?? join(process.cwd(), '.build');
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

/** Today's ISO 8601 day in the company's time zone. */
export function today(): string {
  return new Intl.DateTimeFormat('en-CA', { timeZone: config.timeZone }).format(new Date());
}
