import { accounts } from './parties';
import { products } from './products';
import type { DealSketch, LineSketch } from './sketches';

/** What is sold in one kind of deal; `size` is in bays, houses, years or tables, as the kind has it. */
const KINDS: Readonly<Record<string, (size: number) => LineSketch[]>> = {
  house: (size) => [
    { sku: 'DE-1', quantity: '1' }, { sku: 'FR-640', quantity: `${size}`, discount: size > 9 ? '5' : undefined }, { sku: 'FR-G', quantity: '2' },
    { sku: 'GL-16D', quantity: `${size * 34}` }, { sku: 'DR-D', quantity: '1' }, { sku: 'CC-8', quantity: '1' }, { sku: 'WS-1', quantity: '1' },
    { sku: 'GW-M', quantity: `${size * 8}` }, { sku: 'IN-D', quantity: `${size}` }, { sku: 'CM-1', quantity: '1' }, { sku: 'SP-Y', quantity: '2', optional: true },
  ],
  wide: (size) => [
    { sku: 'FR-960', quantity: `${size}`, discount: '7.5' }, { sku: 'GU-64', quantity: `${size * 2}` }, { sku: 'PC-32', quantity: `${size * 58}` },
    { sku: 'SV-16', quantity: `${size * 2}` }, { sku: 'VM-24', quantity: `${Math.ceil(size / 4)}` }, { sku: 'CC-24', quantity: '1' },
    { sku: 'CR-D', quantity: '2' }, { sku: 'IN-D', quantity: `${size + 2}` }, { sku: 'CM-1', quantity: '1' },
  ],
  vents: (size) => [
    { sku: 'VM-48', quantity: `${size}` }, { sku: 'RV-24', quantity: `${size * 2}`, discount: '10' }, { sku: 'RW-1', quantity: '1' },
    { sku: 'IM-1', quantity: `${size * 12}` }, { sku: 'IN-D', quantity: `${Math.ceil(size / 6)}` },
  ],
  lights: (size) => [
    { sku: 'LED-600', quantity: `${size * 8}`, discount: '12' }, { sku: 'LX-1', quantity: '1' }, { sku: 'EL-D', quantity: `${Math.ceil(size / 3)}` }, { sku: 'CM-1', quantity: '1' },
  ],
  water: (size) => [
    { sku: 'IS-20', quantity: '1' }, { sku: 'TK-5', quantity: `${size}` }, { sku: 'DL-16', quantity: `${size * 640}` }, { sku: 'VL-1', quantity: `${size * 4}` },
    { sku: 'UV-3', quantity: '1', optional: true }, { sku: 'EL-D', quantity: '1' },
  ],
  heat: (size) => [
    { sku: 'HP-W', quantity: `${size}` }, { sku: 'BF-2', quantity: '1' }, { sku: 'HP-51', quantity: `${size * 180}` }, { sku: 'EL-D', quantity: '2' }, { sku: 'CM-1', quantity: '1' },
    { sku: 'WA-Y', quantity: '3', optional: true },
  ],
  screens: (size) => [
    { sku: 'SC-T', quantity: `${size * 400}` }, { sku: 'SC-D', quantity: `${size}` }, { sku: 'SC-B', quantity: `${size * 120}`, optional: true }, { sku: 'IN-D', quantity: `${size * 2}` },
  ],
  care: (size) => [
    { sku: 'SP-Y', quantity: `${size}`, billing: 'yearly', months: 36 }, { sku: 'RM-M', quantity: `${size}`, billing: 'monthly', months: 36 }, { sku: 'ST-S', quantity: '1', billing: 'yearly', months: 36 },
    { sku: 'TR-H', quantity: '1' },
  ],
  set: (size) => [
    { sku: 'CC-24', quantity: `${size}`, partsShown: 'rolled up' }, { sku: 'TH-2', quantity: `${size * 6}`, partOf: 'CC-24' }, { sku: 'CO-S', quantity: `${size * 2}`, partOf: 'CC-24' },
    { sku: 'CO-2', quantity: '1', partsShown: 'indented' }, { sku: 'VL-1', quantity: '4', partOf: 'CO-2' }, { sku: 'EL-D', quantity: '1' },
  ],
  garden: (size) => [
    { sku: size > 1 ? 'GH-32' : 'GH-26', quantity: '1' }, { sku: 'BN-G', quantity: `${size + 1}` }, { sku: 'AV-1', quantity: `${size + 1}` }, { sku: 'SH-B', quantity: `${size}`, optional: true },
    { sku: 'SU-D', quantity: '1', discount: '100' }, { sku: 'IN-D', quantity: `${size}` }, { sku: 'FR-T', quantity: '1', price: '185.00' },
  ],
  leanto: (size) => [{ sku: 'GH-L', quantity: '1' }, { sku: 'CF-2', quantity: `${size}` }, { sku: 'AV-1', quantity: '2' }, { sku: 'IN-D', quantity: '1' }],
  benches: (size) => [{ sku: 'BT-E', quantity: `${size * 12}` }, { sku: 'BT-R', quantity: `${size * 6}`, discount: '3' }, { sku: 'FR-T', quantity: '1' }],
}; // prettier-ignore

type DealRow = [name: string, account: number, stage: string, kind: string, size: number, more?: Partial<DealSketch>];

const DEALS: DealRow[] = [
  ['Salad house, second range', 117, 'Negotiation', 'house', 12, { site_photo: 'site-fen.png', heating: 'pipe', site_works: ['groundwork', 'crane'] }],
  ['Alpine house vents', 118, 'Quoted', 'vents', 6],
  ['Young plant screens', 119, 'Won', 'screens', 3],
  ['Apple store water', 120, 'Enquiry', 'water', 2],
  ['Teaching glasshouse', 121, 'Site visit', 'house', 6, { site_photo: 'site-hill.png', site_works: ['groundwork', 'electrics'] }],
  ['Herb benches', 122, 'Delivered', 'benches', 4],
  ['Vinery restoration vents', 123, 'Quoted', 'vents', 10],
  ['School growing house', 124, 'Enquiry', 'garden', 2, { brand: 'Little Vale' }],
  ['Community lean-to', 125, 'Won', 'leanto', 3, { brand: 'Little Vale' }],
  ['Cut-flower lights', 126, 'Negotiation', 'lights', 9],
  ['Glasshouse by the orchard wall', 127, 'Quoted', 'garden', 2, { brand: 'Little Vale', site_photo: 'site-walled.png' }],
  ['Seed house', 128, 'Won', 'garden', 1, { brand: 'Little Vale' }],
  ['Lean-to and cold frames', 129, 'Quoted', 'leanto', 2, { brand: 'Little Vale' }],
  ['Corbel Hall kitchen garden', 130, 'Negotiation', 'house', 8, { site_photo: 'site-walled.png', glazing: 'toughened' }],
  ['Display houses, six centres', 131, 'Site visit', 'garden', 3, { brand: 'Little Vale' }],
  ['Glen tunnels to glass', 132, 'Quoted', 'wide', 9],
  ['Orchid set points', 133, 'Won', 'set', 2],
  ['Research fogging and climate', 134, 'Enquiry', 'set', 3],
  ['Wilgenhoek warmtepomp', 135, 'Quoted', 'heat', 2, { quote_language: 'nl', heating: 'pipe' }],
  ['Schermen voor orchideeën', 136, 'Negotiation', 'screens', 6, { quote_language: 'nl' }],
  ['Paprika, afdeling 7', 137, 'Won', 'wide', 14, { quote_language: 'nl', site_photo: 'site-fen.png' }],
  ['Hortus palmenkas, luchting', 138, 'Enquiry', 'vents', 14, { quote_language: 'nl' }],
  ['Stekruimte belichting', 139, 'Quoted', 'lights', 12, { quote_language: 'nl' }],
  ['Riego de la parcela norte', 140, 'Negotiation', 'water', 4, { quote_language: 'es' }],
  ['Multitúnel Aguamansa', 141, 'Quoted', 'wide', 11, { quote_language: 'es', site_photo: 'site-dry.png' }],
  ['Invernadero tropical', 142, 'Site visit', 'house', 9, { quote_language: 'es' }],
  ['Pantallas para rosa', 143, 'Won', 'screens', 4, { quote_language: 'es' }],
  ['Fresas en mesa', 144, 'Delivered', 'benches', 9, { quote_language: 'es' }],
  ['Rowan garden propagation', 145, 'Quoted', 'house', 5],
  ['Sunny Slope heat pump', 146, 'Negotiation', 'heat', 3],
  ['Willow cuttings lights', 147, 'Enquiry', 'lights', 5],
  ['Tomatenhaus Talacker', 148, 'Quoted', 'wide', 8, { quote_language: 'de', snow_zone: '3' }],
  ['Staudenhaus, Lüftungserneuerung', 149, 'Negotiation', 'vents', 8, { quote_language: 'de' }],
  ['Schulgewächshaus Obergarten', 150, 'Enquiry', 'house', 4, { quote_language: 'de', snow_zone: '4' }],
  ['بيت الشتلات', 151, 'Quoted', 'house', 7, { quote_language: 'ar', incoterm: 'CIF' }],
  ['شبكة ري البيوت الزجاجية', 152, 'Negotiation', 'water', 5, { quote_language: 'ar', site_photo: 'site-dry.png' }],
  ['Research farm climate', 153, 'Won', 'set', 4, { incoterm: 'DAP' }],
  ['Melon house lights', 154, 'Quoted', 'lights', 6, { incoterm: 'DAP' }],
  ['Seedling benches', 155, 'Enquiry', 'benches', 6, { incoterm: 'CIF' }],
  ['Greens, first acre', 156, 'Negotiation', 'wide', 16, { incoterm: 'FOB' }],
  ['Nursery propagation', 157, 'Lost', 'house', 6, { incoterm: 'FOB', closes_on: '2026-09-30' }],
  ['Conservatory renewal', 158, 'Site visit', 'vents', 18, { incoterm: 'DAP' }],
  ['Stock order, spring', 159, 'Won', 'benches', 14],
  ['Reseller sets', 160, 'Invoiced', 'set', 5, { closes_on: '2026-10-12' }],
  ['Care plan, five houses', 101, 'Negotiation', 'care', 5],
  ['Care plan, botanic garden', 102, 'Won', 'care', 8, { order_number: 'KH/26/0519' }],
  ['Onderhoud Ganzenpad', 103, 'Quoted', 'care', 3, { quote_language: 'nl' }],
  ['Lantern packing shed care', 115, 'Quoted', 'care', 2],
]; // prettier-ignore

/** What a country is billed in: currency, pounds to one of it in hundredths, and the tax of a sale to it. */
const COUNTRIES: Readonly<Record<string, [currency: string, rate: number, tax: [category: string, rate: string]]>> = {
  GB: ['GBP', 100, ['standard', '20']], IE: ['EUR', 117, ['reverse charge', '0']], NL: ['EUR', 117, ['reverse charge', '0']],
  ES: ['EUR', 117, ['reverse charge', '0']], PL: ['EUR', 117, ['reverse charge', '0']], CH: ['CHF', 112, ['export', '0']],
  AE: ['AED', 465, ['standard', '5']], JP: ['JPY', 19_000, ['export', '0']], US: ['USD', 127, ['export', '0']],
}; // prettier-ignore

/** Deals as they come every week: their lines by kind, their prices from the list in the customer's currency. */
export const ordinaryDeals: DealSketch[] = DEALS.map(([name, account, stage, kind, size, more], index) => {
  const account_id = `A-${account}`;
  const [currency, rate, tax] = COUNTRIES[accounts.find(({ id }) => id === account_id)!.country]!;
  const lines = KINDS[kind]!(size).map((line): LineSketch => ({
    ...line,
    price: line.price ?? listPrice(line.sku, currency, rate),
  }));
  const id = `D-${1219 + index}`;
  return { id, name, account_id, stage, currency, tax, lines, amount: amountOf(lines, currency), ...more };
});

/** The list price in another currency, rounded to whole ones above a hundred and to hundredths below. */
function listPrice(sku: string, currency: string, rate: number): string {
  const pounds = products.find((product) => product.sku === sku)!.list_price;
  if (currency === 'GBP') return pounds;
  const hundredths = Number(pounds) * rate;
  const whole = currency === 'JPY' || hundredths > 10_000;
  return whole ? `${Math.max(1, Math.round(hundredths / 100))}` : (Math.round(hundredths) / 100).toFixed(2);
}

/** What is ordered, less discounts, in the currency's smallest unit. */
function amountOf(lines: readonly LineSketch[], currency: string): string {
  const unit = currency === 'JPY' ? 1 : 100;
  const net = ({ quantity, price, discount, optional }: LineSketch) =>
    optional
      ? 0
      : Math.round(
          (Math.round(Number(quantity) * Number(price) * 1e6) / 1e6) * (1 - Number(discount ?? 0) / 100) * unit,
        );
  const sum = lines.reduce((total, line) => total + net(line), 0);
  return (sum / unit).toFixed(unit === 1 ? 0 : 2);
}
