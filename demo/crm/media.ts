import { Resvg } from '@resvg/resvg-js';
import { dataSheets } from './data-sheets';

/** Strokes of the product drawings, on a sheet of 120 × 90. */
const DRAWINGS: Readonly<Record<string, string>> = {
  frame: '<path d="M16 74V42l44-24 44 24v32M16 42h88M60 18v56M38 30v44M82 30v44M10 74h100"/>',
  pane: '<path d="M34 14h52v62H34zM34 45h52M60 14v62"/><path d="M42 36l10-12M68 68l12-14" class="thin"/>',
  sheet: '<path d="M22 28l56-10 20 8v46l-56 10-20-8zM22 28l20 8 56-10M42 36v46"/><path d="M29 31v44M36 33v46" class="thin"/>',
  motor: '<rect x="28" y="30" width="46" height="32" rx="6"/><path d="M74 46h22M96 38v16M38 62v12M64 62v12M30 74h42"/><path d="M40 38v16M50 38v16M60 38v16" class="thin"/>',
  vent: '<path d="M14 66l46-34 46 34M60 32l34-10 12 10-26 15"/><path d="M82 40l-6 14" class="thin"/>',
  controller: '<rect x="34" y="12" width="52" height="66" rx="4"/><rect x="42" y="20" width="36" height="20" rx="2"/><circle cx="48" cy="54" r="4"/><circle cx="60" cy="54" r="4"/><circle cx="72" cy="54" r="4"/><path d="M46 68h28" class="thin"/>',
  sensor: '<path d="M60 78V40M44 78h32M60 40l22-14M60 40L38 26"/><circle cx="84" cy="25" r="7"/><circle cx="36" cy="25" r="7"/><circle cx="60" cy="38" r="4"/>',
  probe: '<path d="M60 10v18"/><rect x="50" y="28" width="20" height="40" rx="10"/><path d="M50 40h20M50 48h20M50 56h20" class="thin"/>',
  skid: '<path d="M12 76h96M18 68h84"/><rect x="24" y="30" width="24" height="38" rx="10"/><circle cx="70" cy="54" r="14"/><path d="M48 42h22v-14h26v40M70 40v-12"/>',
  drip: '<path d="M10 30c30-16 70 16 100 0"/><path d="M32 40c-6 10-6 14 0 14s6-4 0-14zM62 42c-6 10-6 14 0 14s6-4 0-14zM90 42c-6 10-6 14 0 14s6-4 0-14z" class="thin"/>',
  light: '<path d="M60 8v14M24 22h72l-6 14H30z"/><path d="M36 44l-6 30M52 44l-2 30M68 44l2 30M84 44l6 30" class="thin"/>',
  screen: '<path d="M14 20h92M20 20c0 20-2 34 0 52M106 20"/><path d="M20 22c10 18 18 18 28 0 10 18 18 18 28 0 10 18 18 18 28 0v40c-10 12-18 12-28 0-10 12-18 12-28 0-10 12-18 12-28 0z"/>',
  pipe: '<path d="M12 38h60a16 16 0 0 1 16 16v24M12 54h60v24"/><path d="M26 34v24M44 34v24" class="thin"/>',
  boiler: '<rect x="34" y="16" width="52" height="60" rx="8"/><path d="M60 16V6M34 34h52"/><path d="M60 66c-10-8-4-14 0-22 4 8 10 14 0 22z"/><circle cx="46" cy="25" r="3"/>',
  tools: '<path d="M30 72l34-34M64 38a13 13 0 0 1 18-16l-9 9 6 6 9-9a13 13 0 0 1-16 18L38 80z"/>',
  crane: '<path d="M34 78V14M34 20h66M34 14l66 6M34 34l22-14M86 20v24M78 44h16v10H78zM22 78h26"/>',
  ground: '<path d="M10 56h26l8 16h32l8-16h26"/><path d="M20 56v20M100 56v20M30 40l30-18 8 10-30 18z" class="thin"/>',
  gauge: '<path d="M22 66a38 38 0 0 1 76 0z"/><path d="M60 66l18-24"/><path d="M32 56l6 2M60 30v7M88 56l-6 2" class="thin"/>',
  calendar: '<rect x="26" y="20" width="68" height="56" rx="4"/><path d="M26 36h68M42 12v14M78 12v14"/><path d="M48 56l9 9 17-18"/>',
  people: '<circle cx="42" cy="34" r="10"/><circle cx="78" cy="34" r="10"/><path d="M22 74c0-18 8-24 20-24s18 8 18 24c0-16 6-24 18-24s20 6 20 24"/>',
  lorry: '<path d="M10 28h58v36H10zM68 40h22l14 14v10H68z"/><circle cx="30" cy="68" r="8"/><circle cx="86" cy="68" r="8"/>',
  bench: '<path d="M12 34h96v10H12zM22 44v34M98 44v34M22 64h76"/><path d="M30 34v10M50 34v10M70 34v10M90 34v10" class="thin"/>',
  shelf: '<path d="M22 12v68M98 12v68M22 30h76M22 54h76M22 76h76"/><path d="M34 18h14v12H34zM58 40h18v14H58zM36 62h22v14H36z" class="thin"/>',
}; // prettier-ignore

function drawing(strokes: string): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" width="120" height="90" viewBox="0 0 120 90"><rect width="120" height="90" rx="4" fill="#edf3f0"/><g fill="#ffffff" stroke="#1f6d70" stroke-width="2.4" stroke-linejoin="round" stroke-linecap="round">${strokes.replaceAll('class="thin"', 'stroke-width="1.4" fill="none"')}</g></svg>`;
}

/** A made-up place in the style of a photograph: sky, hills, and a glasshouse or the ground for one. */
function site(sky: string, hills: string, field: string, built: boolean): string {
  const house = built
    ? '<g fill="#dfeaea" fill-opacity=".75" stroke="#f7faf9" stroke-width="3"><path d="M300 330v-90l110-60 110 60v90zM520 330v-90l110-60 110 60v90z"/><path d="M300 240h440M355 330v-120M410 330V180M465 330v-120M575 330v-120M630 330V180M685 330v-120"/></g>'
    : '<g stroke="#e6d9b8" stroke-width="4" fill="none"><path d="M250 380h460l80 70H190z"/><path d="M250 380v-30M710 380v-30M790 450v-36M190 450v-36"/></g>';
  return `<svg xmlns="http://www.w3.org/2000/svg" width="960" height="540"><defs><linearGradient id="s" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="${sky}"/><stop offset="1" stop-color="#f3efe3"/></linearGradient></defs><rect width="960" height="540" fill="url(#s)"/><circle cx="760" cy="110" r="46" fill="#fff6dc"/><path d="M0 300c140-90 260-40 380-70s300-80 580 20v290H0z" fill="${hills}"/><path d="M0 340c200-50 420 10 960-30v230H0z" fill="${field}"/>${house}<path d="M0 470c300-40 560 30 960-10v80H0z" fill="#5f6f48" fill-opacity=".55"/></svg>`;
}

const SITES: Readonly<Record<string, [sky: string, hills: string, field: string, built: boolean]>> = {
  'site-fen': ['#9cc2d4', '#8aa38f', '#a9b77f', true],
  'site-hill': ['#b4c9dd', '#7f957f', '#9aae7c', false],
  'site-dry': ['#a8d0e2', '#cdb68c', '#d8c49a', false],
  'site-walled': ['#c3cedb', '#94896f', '#a8b07a', true],
};

/** The pictures and PDFs that the demo's records refer to, by name. Drawn and written by the project. */
export function demoMedia(): Record<string, { type: string; content: Buffer }> {
  const drawings = Object.entries(DRAWINGS).map(
    ([name, strokes]) => [`${name}.svg`, { type: 'image/svg+xml', content: Buffer.from(drawing(strokes)) }] as const,
  );
  const photos = Object.entries(SITES).map(
    ([name, look]) =>
      [`${name}.png`, { type: 'image/png', content: new Resvg(site(...look)).render().asPng() }] as const,
  );
  return Object.fromEntries([...drawings, ...photos, ...dataSheets()]);
}
