import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { RefusedFile } from './refused-file';

const SVG = 'http://www.w3.org/2000/svg';
const XLINK = 'http://www.w3.org/1999/xlink';
/** Namespaces whose elements browsers act upon, beside SVG's own. Those of drawing programs' notes draw and run nothing. */
const ACTIVE = new Set([
  'http://www.w3.org/1999/xhtml',
  'http://www.w3.org/1998/Math/MathML',
  'http://www.w3.org/2001/xml-events',
  'http://www.w3.org/1999/XSL/Transform',
  XLINK,
]);

/** Elements that draw (SVG 2). Whatever runs, plays, embeds or loads is not among them. */
const ELEMENTS = new Set([
  'svg', 'g', 'defs', 'symbol', 'use', 'title', 'desc', 'metadata', 'path', 'rect', 'circle', 'ellipse', 'line', 'polyline',
  'polygon', 'text', 'tspan', 'textPath', 'clipPath', 'mask', 'marker', 'pattern', 'linearGradient', 'radialGradient', 'stop',
  'style', 'switch', 'filter', 'feBlend', 'feColorMatrix', 'feComposite', 'feDropShadow', 'feFlood', 'feGaussianBlur', 'feMerge',
  'feMergeNode', 'feOffset',
]); // prettier-ignore

/** Attributes that say how something is drawn (SVG 2, its properties, and the filter effects above). */
const ATTRIBUTES = new Set([
  'style', 'href', 'version', 'baseProfile', 'viewBox', 'preserveAspectRatio', 'transform', 'type',
  'media', 'requiredFeatures', 'requiredExtensions', 'systemLanguage', 'enable-background', 'zoomAndPan', 'xmlns',
  'x', 'y', 'x1', 'y1', 'x2', 'y2', 'cx', 'cy', 'r', 'rx', 'ry', 'fx', 'fy', 'fr', 'dx', 'dy', 'd', 'points', 'width', 'height',
  'pathLength', 'offset', 'rotate', 'textLength', 'lengthAdjust', 'startOffset', 'method', 'spacing', 'side',
  'gradientUnits', 'gradientTransform', 'spreadMethod', 'patternUnits', 'patternContentUnits', 'patternTransform',
  'clipPathUnits', 'maskUnits', 'maskContentUnits', 'mask-type', 'markerUnits', 'markerWidth', 'markerHeight', 'refX', 'refY', 'orient',
  'fill', 'fill-opacity', 'fill-rule', 'stroke', 'stroke-opacity', 'stroke-width', 'stroke-linecap', 'stroke-linejoin',
  'stroke-miterlimit', 'stroke-dasharray', 'stroke-dashoffset', 'stroke-alignment', 'paint-order', 'vector-effect', 'opacity', 'color',
  'color-interpolation', 'color-interpolation-filters', 'color-rendering', 'shape-rendering', 'text-rendering', 'image-rendering',
  'display', 'visibility', 'overflow', 'clip', 'clip-path', 'clip-rule', 'mask', 'filter', 'isolation', 'mix-blend-mode',
  'marker', 'marker-start', 'marker-mid', 'marker-end', 'stop-color', 'stop-opacity', 'solid-color', 'solid-opacity',
  'font', 'font-family', 'font-size', 'font-size-adjust', 'font-stretch', 'font-style', 'font-variant', 'font-weight', 'kerning',
  'letter-spacing', 'word-spacing', 'text-anchor', 'text-align', 'text-decoration', 'text-decoration-line', 'text-indent', 'text-transform',
  'line-height', 'white-space', 'writing-mode', 'direction', 'unicode-bidi', 'dominant-baseline', 'alignment-baseline', 'baseline-shift',
  'glyph-orientation-vertical', 'glyph-orientation-horizontal', 'pointer-events', 'cursor', 'xChannelSelector', 'yChannelSelector',
  'filterUnits', 'primitiveUnits', 'filterRes', 'in', 'in2', 'result', 'mode', 'operator', 'k1', 'k2', 'k3', 'k4', 'values',
  'stdDeviation', 'edgeMode', 'flood-color', 'flood-opacity', 'lighting-color',
]); // prettier-ignore

/** What may be called in CSS: colours, transforms, effects. `url` is looked at by itself. */
const CSS_FUNCTIONS = new Set([
  'rgb', 'rgba', 'hsl', 'hsla', 'hwb', 'lab', 'lch', 'oklab', 'oklch', 'color', 'calc', 'min', 'max', 'clamp', 'var',
  'matrix', 'matrix3d', 'translate', 'translatex', 'translatey', 'scale', 'scalex', 'scaley', 'rotate', 'skewx', 'skewy',
  'blur', 'brightness', 'contrast', 'drop-shadow', 'grayscale', 'hue-rotate', 'invert', 'opacity', 'saturate', 'sepia',
  'not', 'is', 'where', 'first-child', 'nth-child', 'nth-of-type', 'rect', 'inset', 'circle', 'ellipse', 'polygon', 'url',
]); // prettier-ignore
const LARGEST_SVG = 2 * 1024 * 1024;
const MOST_ELEMENTS = 50_000;
const DEEPEST = 500;

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
  const nodes = parsed(source);
  const root = nodes.find((node) => localName(nameOf(node) ?? '') === 'svg');
  if (!root) throw new RefusedFile('The file is XML, but no SVG drawing.');
  let elements = 0;
  const visit = (node: Node, outer: Namespaces) => {
    const name = nameOf(node);
    if (name === undefined || name === '#text' || name === '#comment') return;
    if (name.startsWith('?')) return refuseInstruction(name);
    if (++elements > MOST_ELEMENTS) throw new RefusedFile('The SVG has more than 50,000 elements. Simplify it first.');
    const attributes = (node[':@'] ?? {}) as Record<string, unknown>;
    const namespaces = withDeclared(attributes, outer);
    if (isDrawing(name, namespaces)) {
      refuseElement(localName(name));
      for (const [key, value] of Object.entries(attributes)) refuseAttribute(key, String(value), namespaces);
      if (localName(name) === 'style') refuseStyle(styleSheet(node[name] as Node[]));
    }
    for (const child of node[name] as Node[]) visit(child, namespaces);
  };
  for (const node of nodes) visit(node, new Map());
  return sizeOf((root[':@'] ?? {}) as Record<string, string>);
}

function parsed(source: string): Node[] {
  const parser = new XMLParser({
    ignoreAttributes: false,
    attributeNamePrefix: '',
    preserveOrder: true,
    processEntities: true,
    maxNestedTags: DEEPEST,
  });
  try {
    return parser.parse(source) as Node[];
  } catch {
    throw new RefusedFile('The SVG is damaged, or nested more than 500 levels deep. Simplify it first.');
  }
}

/** Namespace names by their prefixes; the default one by an empty prefix (Namespaces in XML 1.0). */
type Namespaces = ReadonlyMap<string, string>;

const nameOf = (node: Node) => Object.keys(node).find((key) => key !== ':@');
const localName = (name: string) => name.slice(name.indexOf(':') + 1);
const prefixOf = (name: string) => (name.includes(':') ? name.slice(0, name.indexOf(':')) : '');

function withDeclared(attributes: Record<string, unknown>, outer: Namespaces): Namespaces {
  const declared = Object.entries(attributes).filter(([name]) => name === 'xmlns' || name.startsWith('xmlns:'));
  if (declared.length === 0) return outer;
  return new Map([...outer, ...declared.map(([name, uri]) => [name.slice(6), String(uri).trim()] as const)]);
}

/** Whether an element belongs to the drawing. One without a namespace is taken for one that does. @throws RefusedFile */
function isDrawing(name: string, namespaces: Namespaces): boolean {
  const prefix = prefixOf(name);
  const namespace = namespaces.get(prefix) ?? '';
  if (ACTIVE.has(namespace) || (prefix !== '' && namespace === '')) throw noDrawing(name);
  return namespace === SVG || namespace === '';
}

function refuseElement(name: string): void {
  if (!ELEMENTS.has(name)) throw noDrawing(name);
}

const noDrawing = (name: string) =>
  new RefusedFile(`The SVG holds “${name.slice(0, 40)}”, which is no drawing. Take it out and choose the file again.`);

/** An instruction can bring a style sheet along (`xml-stylesheet`), and none is needed. */
function refuseInstruction(name: string): void {
  if (name.toLowerCase() !== '?xml') throw noDrawing(name);
}

function refuseAttribute(name: string, value: string, namespaces: Namespaces): void {
  if (name === 'xmlns' || name.startsWith('xmlns:')) return;
  const [prefix, local] = [prefixOf(name), localName(name)];
  if (/^on/i.test(local))
    throw new RefusedFile(`The SVG runs a script at “${name}”. Take it out and choose the file again.`);
  const namespace = namespaces.get(prefix);
  const isLink = /^href$/i.test(local) && (prefix === '' || namespace === XLINK || namespace === undefined);
  if (isLink && !/^\s*#/.test(value)) throw outside(value);
  // What drawing programs note for themselves, and what XML itself says of a text: language, blanks.
  if (prefix !== '') return;
  if (/^(data|aria)-|^(id|class|lang|role)$/.test(local)) return;
  if (!ATTRIBUTES.has(local))
    throw new RefusedFile(
      `The SVG says “${local.slice(0, 40)}”, which no drawing does. Take it out and choose the file again.`,
    );
  refuseStyle(value);
}

function refuseStyle(source: string): void {
  const css = source.replace(/\/\*[\s\S]*?(\*\/|$)/g, ' ');
  if (css.includes('\\')) throw new RefusedFile('The SVG has a backslash in a style. Save it as plain SVG.');
  const rule = /@([\w-]+)/.exec(css);
  if (rule) throw outside(`@${rule[1]}${css.slice(rule.index + rule[0].length).split(';')[0]!}`);
  for (const [, called] of css.matchAll(/([\w-]+)\(/g)) {
    if (!CSS_FUNCTIONS.has(called!.toLowerCase()))
      throw new RefusedFile(`The SVG calls “${called!.slice(0, 40)}” in a style. Save it as plain SVG.`);
  }
  const loads = /url\(\s*['"]?(?!\s*['"]?\s*#)([^)]{0,60})/i.exec(css);
  if (loads) throw outside(loads[1]!);
  if (/(javascript|data|vbscript):/i.test(css))
    throw new RefusedFile('The SVG runs a script. Take it out and choose the file again.');
}

/** The text of a style element. */
function styleSheet(nodes: readonly Node[]): string {
  return nodes.map((node) => (typeof node['#text'] === 'string' ? node['#text'] : JSON.stringify(node))).join('');
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
