/**
 * What Lumbix's own page may load and run (W3C Content Security Policy 3): scripts of its own files, and those within the page
 * that carry its nonce. Styles may stand within the page, since components bring theirs along.
 */
export function pagePolicy(nonce: string): string {
  return [
    "default-src 'none'",
    `script-src 'self' 'nonce-${nonce}'`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self' data:",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "manifest-src 'self'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
}

/** For PDF files: browsers show them with a viewer of their own, which needs what pages do not. */
export const FILE_POLICY = "frame-ancestors 'none'";

/** For answers that are no pages: a browser that shows one as a page lets nothing run in it. */
export const ANSWER_POLICY = "default-src 'none'; frame-ancestors 'none'";
