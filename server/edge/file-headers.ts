import { FILE_POLICY } from './page-policy';

/** Headers of an answer that is a file, with its name in any script (RFC 8187): to be looked at, or to be kept. */
export const fileHeaders = (mediaType: string, name: string, how: 'inline' | 'attachment') => ({
  'Content-Type': mediaType,
  'Content-Disposition': `${how}; filename*=UTF-8''${encodeURIComponent(name)}`,
});

/** Headers of a PDF that browsers show. */
export const pdfHeaders = (name: string) => ({
  ...fileHeaders('application/pdf', name, 'inline'),
  'Content-Security-Policy': FILE_POLICY,
});
