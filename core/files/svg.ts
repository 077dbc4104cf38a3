import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { RefusedFile } from './refused-file';

/** Elements that draw. Whatever runs, plays, embeds or loads is not among them. */
const DRAWING = new Set([
  'svg', 'g', 'defs', 'symbol', 'use', 'title', 'desc', 'metadata', 'path', 'rect', 'circle', 'ellipse', 'line', 'polyline',
  'polygon', 'text', 'tspan', 'textPath', 'clipPath', 'mask', 'marker', 'pattern', 'linearGradient', 'radialGradient', 'stop',
  'style', 'switch', 'filter', 'feBlend', 'feColorMatrix', 'feComposite', 'feDropShadow', 'feFlood', 'feGaussianBlur', 'feMerge',
  'feMergeNode', 'feOffset',
]); // prettier-ignore
const LARGEST_SVG = 2 * 1024 * 1024;
const MOST_ELEMENTS = 50_000;

type Node = Record<string, unknown>;

/**
 * Looks over an SVG: only drawing, nothing from elsewhere. Gives its size in user units.
 * @throws RefusedFile
 */
export function lookOverSvg(source: string): { width: number; height: number } {
  if (!/^\s*(<\?xml|<!--|<svg|<!DOCTYPE)/i.test(source.replace(/^\uFEFF/, '')))
    throw new RefusedFile('This is neither a PNG, a JPEG, an SVG nor a PDF. Choose a file of one of these kinds.');
  if (source.length > LARGEST_SVG) throw new RefusedFile('The SVG is larger than 2 MB. Simplify it first.');
  // Entities can be made to grow without end, and none is needed in a drawing.
  if (/<!(DOCTYPE|ENTITY)/i.test(source))
    throw new RefusedFile('The SVG declares a document type or entities. Save it as plain SVG.');
  const valid = XMLValidator.validate(source);
  if (valid !== true) throw new RefusedFile(`The SVG is damaged: in line ${valid.err.line}, ${valid.err.msg}`);
  const parser = new XMLParser({
    ignoreAttributes: false,
    attributeNamePrefix: '',
    preserveOrder: true,
    processEntities: true,
  });
  const root = (parser.parse(source) as Node[]).find((node) => 'svg' in node);
  if (!root) throw new RefusedFile('The file is XML, but no SVG drawing.');
  let elements = 0;
  const visit = (node: Node) => {
    const [name] = Object.keys(node).filter((key) => key !== ':@');
    if (name === undefined || name === '#text' || name.startsWith('?') || name === '#comment') return;
    if (++elements > MOST_ELEMENTS) throw new RefusedFile('The SVG has more than 50,000 elements. Simplify it first.');
    const local = name.split(':').at(-1)!;
    // Notes that drawing programs leave for themselves draw nothing.
    if (name.includes(':') && !name.startsWith('svg:')) return;
    if (!DRAWING.has(local))
      throw new RefusedFile(`The SVG holds “${local}”, which is no drawing. Take it out and choose the file again.`);
    for (const [key, value] of Object.entries((node[':@'] ?? {}) as Node)) refuseAttribute(key, String(value));
    if (local === 'style') refuseStyle(JSON.stringify(node[name]));
    for (const child of node[name] as Node[]) visit(child);
  };
  visit(root);
  return sizeOf((root[':@'] ?? {}) as Record<string, string>);
}

function refuseAttribute(name: string, value: string): void {
  if (/^on/i.test(name))
    throw new RefusedFile(`The SVG runs a script at “${name}”. Take it out and choose the file again.`);
  if (/(^|:)href$/i.test(name) && !value.trim().startsWith('#')) throw outside(value);
  if (name !== 'xmlns' && !name.startsWith('xmlns:')) refuseStyle(value);
}

function refuseStyle(css: string): void {
  const loads = /url\(\s*['"\\]*(?!['"\\]*#)([^)]{0,60})/i.exec(css) ?? /@import([^;]{0,60})/i.exec(css);
  if (loads) throw outside(loads[1]!);
  if (/javascript:/i.test(css)) throw new RefusedFile('The SVG runs a script. Take it out and choose the file again.');
}

function outside(what: string): RefusedFile {
  return new RefusedFile(
    `The SVG refers to something outside of itself (${what.trim().slice(0, 60)}). Embed nothing and link to nothing, then choose it again.`,
  );
}

/** The size by the view box, or by width and height; a square where it says neither. */
function sizeOf(attributes: Record<string, string>): { width: number; height: number } {
  const box = (attributes.viewBox ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const [width, height] =
    box.length === 4 ? [box[2]!, box[3]!] : [attributes.width, attributes.height].map((each) => parseFloat(each ?? ''));
  const whole = (side: number | undefined) =>
    side && Number.isFinite(side) && side > 0 ? Math.max(1, Math.round(side)) : 100;
  if (Math.max(whole(width), whole(height)) > 30_000)
    throw new RefusedFile('The SVG is drawn on a sheet of more than 30,000 units. Make its view box smaller.');
  return { width: whole(width), height: whole(height) };
}
