import { number, oneOf, sha256Hex, shape, text, type InferType } from '../shape/shape';

/** ISO 19005-2 level b (for archives), ISO 14289-1 (for everybody's eyes and ears). */
export const PDF_STANDARDS = ['pdf/a-2b', 'pdf/ua-1'] as const;
export type PdfStandard = (typeof PDF_STANDARDS)[number];

export const FILE_MEDIA_TYPES = ['image/svg+xml', 'image/png', 'image/jpeg', 'application/pdf'] as const;

/** The largest picture or PDF of a template, in bytes. */
export const LARGEST_FILE = 20 * 1024 * 1024;

/** A picture or PDF that belongs to a template. */
export const templateFile = shape({
  mediaType: oneOf(FILE_MEDIA_TYPES).required(),
  sha256: sha256Hex().required(),
  /** Of a PDF: its pages, and the standard that it says it keeps. */
  pages: number().integer().min(1),
  standard: oneOf(PDF_STANDARDS),
  /** Of a picture, in pixels. */
  width: number().min(1),
  height: number().min(1),
  /** Its bytes in base64, in a template that was taken out; in here they are kept once, by their hash. */
  content: text(30_000_000),
}).required();
export type TemplateFile = InferType<typeof templateFile>;
