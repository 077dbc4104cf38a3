import { products } from './products';
import { ordinaryDeals } from './ordinary-deals';
import type { Deal, LineItem, Product } from './records';
import type { DealSketch, LineSketch } from './sketches';

const STANDARD_GB: [string, string] = ['standard', '20'];
const REVERSE: [string, string] = ['reverse charge', '0'];

const line = (sku: string, quantity: string, more: Omit<LineSketch, 'sku' | 'quantity'> = {}): LineSketch => ({
  sku,
  quantity,
  ...more,
});

const LONG_NAME =
  'Ridge and side ventilation set for a Venlo-type propagation house with continuous aluminium profiles, insect mesh, wind-side override, hand crank for power cuts, and a spare drive wheel';

/** What is delivered or done once, without the recurring charges. */
const ONCE = products.slice(0, 28).filter(({ sku }) => sku !== 'RM-M' && sku !== 'ST-S');

/** 140 lines: three bays of parts repeated over the rooms of a research house. */
const RESEARCH_LINES: LineSketch[] = Array.from({ length: 140 }, (_, index) => {
  const product = ONCE[index % ONCE.length]!;
  const room = Math.floor(index / 10) + 1;
  return line(product.sku, String((index % 7) + 1), {
    name: `Room ${room}: ${product.name}`,
    discount: index % 5 === 0 ? '7.5' : undefined,
  });
});

/** As a CRM's editor writes it, with what must not be printed among it. */
const SCOPE_NOTE =
  '<p>The house stands on the <b>south terrace</b>, with its ridge from east to west.</p><ul><li>Levels were taken on the site visit; the terrace falls by <i>40 mm</i> over its length.</li><li>Water and power are brought to the gable by the garden.</li><li>Work on Saturdays is <u>not</u> allowed.</li></ul><script>alert(1)</script><p>See <a href="https://garden.example/terrace">the survey</a>, or <a href="javascript:alert(2)">ask us</a>.</p>';

/** Deals that ask something of a template each. */
const AWKWARD: DealSketch[] = [
  {
    id: 'D-1187', name: 'Vent renewal, house 3', account_id: 'A-101', stage: 'Negotiation', amount: '15300.00',
    heating: 'pipe', site_works: ['electrics', 'crane'], order_number: null, validity_days: 30, closes_on: '2026-12-14',
    lines: [line('VM-48', '12', { discount: '10' }), line('RV-24', '24', { discount: '10' }), line('CC-8', '1'), line('RW-1', '2')],
  },
  {
    id: 'D-1188', name: 'Propagation house 40 × 12 m', account_id: 'A-102', stage: 'Quoted', amount: '96665.60',
    heating: 'floor', site_works: ['groundwork', 'electrics', 'water', 'crane'], glazing: 'double', order_number: 'KH/26/0317', site_photo: 'site-hill.png', scope_note: SCOPE_NOTE, closes_on: '2027-01-22',
    lines: [
      line('FR-640', '14', { discount: '5' }), line('GL-16D', '480'), line('CC-24', '1', { discount: '12.5' }),
      line('IS-50', '1'), line('SC-T', '456'), line('IN-D', '6'), line('CM-1', '1'), line('TR-H', '2', { optional: true }),
      line('SP-Y', '3', { optional: true, discount: '10' }),
    ],
  },
  {
    id: 'D-1189', name: 'Kweekkas, 40 m', account_id: 'A-103', stage: 'Won', currency: 'EUR', amount: '52480.00', tax: REVERSE,
    heating: 'pipe', site_works: ['groundwork', 'water'], quote_language: 'nl', order_number: 'GP-2026-88', closes_on: '2026-12-02',
    lines: [line('FR-640', '12', { price: '2150.00' }), line('PC-16', '520', { price: '31.50' }), line('IS-50', '1', { price: '8600.00' }), line('CM-1', '1', { price: '1700.00' })],
  },
  {
    id: 'D-1190', name: 'Invernadero sur, ventilación', account_id: 'A-104', stage: 'Won', currency: 'EUR', amount: '21915.00', tax: REVERSE,
    quote_language: 'es', heating: 'none', site_works: ['electrics'], closes_on: '2026-11-19',
    lines: [line('RV-24', '36', { price: '365.00' }), line('VM-48', '12', { price: '565.00' }), line('IN-D', '2', { price: '997.50' })],
  },
  {
    id: 'D-1191', name: 'Grow-light retrofit', account_id: 'A-105', stage: 'Enquiry', amount: '9894.40', heating: 'air',
    lines: [line('LED-600', '24', { discount: '5' }), line('EL-D', '1', { discount: '100' }), line('TH-2', '5'), line('TR-H', '1', { optional: true })],
  },
  {
    id: 'D-1192', name: 'Shade house and irrigation', account_id: 'A-106', stage: 'Quoted', currency: 'AED', amount: '184250.00',
    tax: ['standard', '5'], quote_language: 'ar', site_works: ['groundwork', 'water', 'crane'], incoterm: 'CIF', closes_on: '2027-01-30',
    lines: [line('FR-640', '10', { price: '8900.00' }), line('SC-T', '1000', { price: '55.25' }), line('IS-50', '1', { price: '40000.00' })],
  },
  {
    id: 'D-1193', name: 'Service plan, three houses', account_id: 'A-107', stage: 'Invoiced', amount: '4440.00', closes_on: '2026-11-01',
    lines: [line('SP-Y', '3')],
  },
  {
    id: 'D-1194', name: 'Orangery, walled garden', account_id: 'A-108', stage: 'Site visit', amount: '33272.00', site_photo: 'site-walled.png', heating: 'pipe',
    site_works: ['groundwork'], glazing: 'toughened', closes_on: '2027-02-12',
    lines: [
      line('FR-320', '8'), line('GL-4T', '210'), line('HP-51', '160'), line('GW-M', '64', { tax: ['reduced', '5'] }),
      line('IN-D', '9'), line('TR-H', '1', { tax: ['exempt', '0'] }), line('ST-B', '6', { optional: true }),
    ],
  },
  {
    id: 'D-1195', name: 'Orchid range climate control', account_id: 'A-109', stage: 'Negotiation', currency: 'JPY', amount: '3189680',
    tax: ['zero', '0'], incoterm: 'DAP', closes_on: '2026-12-17',
    lines: [line('CC-24', '2', { price: '1180000', discount: '7.5' }), line('TH-2', '33', { price: '29150' }), line('DL-16', '560', { price: '79.875' })],
  },
  {
    id: 'D-1196', name: 'Garden glasshouse, Little Vale', account_id: 'A-110', stage: 'Delivered', brand: 'Little Vale', amount: '6120.00', contact_id: null, closes_on: '2026-11-04',
    lines: [line('FR-320', '3'), line('GL-4T', '62.5'), line('FR-T', '0.5', { price: '720.00' })],
  },
  {
    id: 'D-1197', name: 'Alpine display house', account_id: 'A-111', stage: 'Quoted', currency: 'CHF', amount: '38694.78', tax: ['export', '0'],
    heating: 'floor', snow_zone: '3', closes_on: '2027-03-05', incoterm: 'DAP',
    lines: [line('FR-320', '12', { price: '1496.35' }), line('GL-16D', '160', { price: '118.45' }), line('TH-2', '7', { price: '263.12', discount: '3' })],
  },
  {
    id: 'D-1198', name: 'Sales office & "show" house', account_id: 'A-112', stage: 'Enquiry', amount: '2214.00', order_number: '<PO> #7 & "9" $x$ *y* [z] \\w',
    site_address: 'Gate <3>, “Dorran” & Quay #5\nBay [B] \\ $4 *rear*',
    lines: [
      line('RW-1', '3', { name: 'Sensor <b>"R&W"</b> #1 $x$ *bold* _it_ [ref] \\n @cite `code`', description: '= heading? - list? // comment /* c */ ~ $ #let x = 1' }),
      line('TH-2', '9.5', { price: '164.210526', description: "It's 5 > 3 & 2 < 4; \u201cquotes\u201d, 'single', emoji 🌱 ok" }),
    ],
  },
  {
    id: 'D-1199', name: 'Fern house, reglazing', account_id: 'A-113', stage: 'Quoted', currency: 'EUR', amount: '10332.00', tax: REVERSE, closes_on: '2026-12-20',
    lines: [line('GL-4T', '224', { price: '44.50' }), line('IN-D', '0.364', { price: '1000.00' })],
  },
  {
    id: 'D-1200', name: 'Birch range, thirds', account_id: 'A-114', stage: 'Negotiation', currency: 'EUR', amount: '101.14', tax: ['standard', '23'],
    lines: [
      line('TR-H', '3', { price: '33.333', name: 'Third of a training fund' }),
      line('DL-16', '3', { price: '0.335', name: 'Drip line sample' }),
      line('DL-16', '1', { price: '0.125', name: 'Drip emitter sample' }),
    ],
  },
  {
    id: 'D-1201', name: 'Lantern packing shed lights', account_id: 'A-115', stage: 'Site visit', currency: 'USD', amount: '19240.00', tax: ['export', '0'], incoterm: 'FOB',
    lines: [line('LED-600', '40', { price: '481.00' })],
  },
  {
    id: 'D-1202', name: 'Winter garden, price to follow', account_id: 'A-116', stage: 'Enquiry', amount: null, heating: 'air',
    lines: [line('FR-320', '6'), line('GL-16D', '85'), line('SC-T', '85'), line('VM-48', '4', { price: null }), line('IN-D', '4')],
  },
  {
    id: 'D-1203', name: 'Research house, fourteen rooms', account_id: 'A-102', stage: 'Quoted', amount: '912771.93', heating: 'pipe',
    site_works: ['groundwork', 'electrics', 'water', 'crane'], order_number: 'KH/26/0402', lines: RESEARCH_LINES, closes_on: '2027-04-30',
  },
  {
    id: 'D-1204', name: 'Goodwill repair', account_id: 'A-107', stage: 'Won', amount: '0.00',
    lines: [line('RW-1', '1', { discount: '100' }), line('IN-D', '1', { discount: '100' })],
  },
  {
    id: 'D-1205', name: 'Extras for the palm house', account_id: 'A-102', stage: 'Enquiry', amount: '0.00',
    lines: [line('LED-600', '8', { optional: true }), line('TR-H', '1', { optional: true }), line('SP-Y', '1', { optional: true })],
  },
  {
    id: 'D-1206', name: 'Long names, one order', account_id: 'A-105', stage: 'Quoted', amount: '7020.00',
    lines: [
      line('RV-24', '12', { name: LONG_NAME }),
      line('TH-2', '20', { price: '163.50', name: 'Probe set', description: 'ORDERCODE-7F3A9C0E5B2D8146AA31F0C97E64D2B85013CAFE9912AB47D0E6F5' }),
    ],
  },
  {
    id: 'D-1207', name: 'Boiler house renewal', account_id: 'A-101', stage: 'Lost', amount: '24460.00', heating: 'pipe', closes_on: '2026-05-29',
    lines: [line('BO-200', '1'), line('HP-51', '300'), line('IN-D', '1.632653', { price: '980.00' })],
  },
  {
    id: 'D-1208', name: 'Currency not chosen', account_id: 'A-116', stage: 'Enquiry', currency: null, amount: null,
    lines: [line('ST-B', '4')],
  },
  {
    id: 'D-1209', name: 'Herb benches', account_id: 'A-105', stage: 'Won', amount: '4862.00', order_number: 'SLH-0093',
    lines: [line('ST-B', '17')],
  },
  {
    id: 'D-1210', name: 'Screen renewal, house 1', account_id: 'A-101', stage: 'Delivered', amount: '12798.00', heating: 'pipe', order_number: 'MF-551',
    lines: [line('SC-T', '1080'), line('SP-Y', '1', { optional: true })],
  },
  {
    id: 'D-1211', name: 'Teaching glasshouse', account_id: 'A-108', stage: 'Negotiation', amount: '15122.50', heating: 'air', site_works: ['crane'],
    lines: [line('FR-320', '5', { discount: '2.5' }), line('PC-16', '145'), line('IN-D', '5'), line('FR-T', '1'), line('TH-2', '1')],
  },
  {
    id: 'D-1212', name: 'No lines yet', account_id: 'A-113', stage: 'Enquiry', currency: 'EUR', amount: null, lines: [],
  },
  {
    id: 'D-1213', name: 'Tomato range, framework order', account_id: 'A-102', stage: 'Negotiation', amount: '81104.00', heating: 'pipe',
    site_works: ['electrics', 'crane'], order_number: 'KH/26/0455', discount_percent: '3', discount_amount: '250.00', closes_on: '2027-01-15',
    lines: [
      line('FR-640', '24', { discount: '7.5' }), line('VM-48', '36', { discount: '10', rebate: '200.00' }), line('RV-24', '72', { rebate: '333.33' }),
      line('RW-1', '1', { rebate: '300.00' }), line('TH-2', '9', { discount: '33.333' }), line('TR-H', '2', { tax: ['exempt', '0'] }),
      line('SP-Y', '1', { optional: true, discount: '10' }),
    ],
  },
  {
    id: 'D-1214', name: 'Service plan with remote watch', account_id: 'A-101', stage: 'Quoted', amount: '2620.30', wanted_by: '2027-01-18',
    lines: [
      line('CM-1', '1', { price: '480.00' }), line('SP-Y', '1', { billing: 'yearly', months: 36 }), line('RM-M', '3', { billing: 'monthly', months: 36, discount: '10' }),
      line('ST-S', '1', { billing: 'yearly', months: 36, optional: true }), line('TR-H', '1'),
    ],
  },
  {
    id: 'D-1215', name: 'Climate set with its parts', account_id: 'A-107', stage: 'Quoted', amount: '4990.00',
    lines: [
      line('CC-8', '1', { name: 'Climate set, one house', price: '3600.00' }), line('RW-1', '2', { price: '195.00', partOf: 'CC-8' }),
      line('TH-2', '4', { price: '150.00', partOf: 'CC-8' }), line('EL-D', '1', { price: '400.00', partOf: 'CC-8' }), line('HP-51', '0'),
    ],
  },
  {
    id: 'D-1216', name: 'Greenhouse school, consumer prices', account_id: 'A-110', stage: 'Enquiry', amount: '667.32',
    lines: [
      line('ST-B', '3', { price: '99.99' }), line('TH-2', '7', { price: '33.33' }), line('DL-16', '101', { price: '0.4375' }),
      line('TR-H', '1', { price: '49.95', tax: ['reduced', '5'] }), line('TR-H', '2', { price: '19.95', tax: ['reduced', '5'] }),
    ],
  },
  {
    id: 'D-1217', name: 'Chamois house, cash price', account_id: 'A-111', stage: 'Negotiation', currency: 'CHF', amount: '2310.28', tax: ['standard', '8.1'],
    lines: [line('ST-B', '7', { price: '312.15' }), line('RW-1', '1', { price: '125.23' })],
  },
  {
    id: 'D-1218', name: 'Desert nursery, first lot', account_id: 'A-106', stage: 'Enquiry', currency: 'KWD', amount: '1234.719', tax: ['zero', '0'], quote_language: 'ar',
    lines: [line('SC-T', '333', { price: '3.1475', discount: '5' }), line('DL-16', '1777', { price: '0.1345' })],
  },
]; // prettier-ignore

/** Deals with lines below zero: a return by its quantity, a trade-in by its mark. */
const RETURNS: DealSketch[] = [
  {
    id: 'D-1267', name: 'Vents renewed, old sensors traded in', account_id: 'A-107', stage: 'Won', amount: '1335.00', heating: 'pipe', closes_on: '2026-12-04',
    lines: [
      line('VM-48', '4'), line('VM-48', '-1', { name: 'Vent motor, returned unused' }),
      line('RW-1', '2', { price: '-60.00', name: 'Rain and wind sensors, traded in', tradeIn: true }),
    ],
  },
]; // prettier-ignore

/** Ids of the deals that ask something of a template. */
export const awkwardDeals: ReadonlySet<string> = new Set([...AWKWARD, ...RETURNS].map(({ id }) => id));

function buildDeals(): { deals: Deal[]; lineItems: LineItem[] } {
  const bySku = new Map(products.map((product) => [product.sku, product]));
  const built = [...AWKWARD, ...ordinaryDeals, ...RETURNS].map(({ lines, tax = STANDARD_GB, ...sketch }, index) => {
    const deal = ordinaryDeal(sketch, index);
    const items = lines.map((each, position) => lineItem(deal, each, position, tax, bySku.get(each.sku)!));
    return { deal, items };
  });
  return { deals: built.map(({ deal }) => deal), lineItems: built.flatMap(({ items }) => items) };
}

const OWNERS = ['Tamar Whitlow', 'Rufus Pell', 'Ines Aldan'];

function ordinaryDeal(sketch: Omit<DealSketch, 'lines' | 'tax'>, index: number): Deal {
  return {
    number: sketch.id,
    stage: 'Enquiry',
    owner: OWNERS[index % OWNERS.length]!,
    contact_id: sketch.account_id.replace('A-1', 'C-2'),
    currency: 'GBP',
    closes_on: `2026-12-${String(1 + ((index * 7) % 28)).padStart(2, '0')}`,
    created_on: `2026-10-${String(1 + (index % 28)).padStart(2, '0')}`,
    site_works: [],
    heating: 'none',
    glazing: null,
    snow_zone: null,
    wind_zone: null,
    site_address: null,
    wanted_by: null,
    incoterm: null,
    order_number: null,
    quote_language: 'en',
    validity_days: 30,
    deposit_percent: '30',
    discount_percent: null,
    discount_amount: null,
    brand: 'Orrin & Vale',
    site_photo: null,
    scope_note: null,
    ...sketch,
  };
}

const SECTIONS: readonly [RegExp, string][] = [
  [/^(FR-[\dG]|GL|PC|SC|ST|GU|DR|IM|BT|GH|CF|BN|SH)/, 'Structure'],
  [/^(VM|RV|SV|FN|FG|CO|LX|WS|TK|UV|VL|CC|RW|TH|LED|AH|BF|FH|AV|HP|BO|IS|DL)/, 'Climate'],
];

function lineItem(deal: Deal, sketch: LineSketch, index: number, tax: [string, string], product: Product): LineItem {
  const [tax_category, tax_rate] = sketch.tax ?? tax;
  return {
    id: `${deal.id}-${index + 1}`,
    deal_id: deal.id,
    position: index + 1,
    product_id: product.id,
    section: SECTIONS.find(([pattern]) => pattern.test(product.sku))?.[1] ?? 'Services',
    sku: product.sku,
    name: sketch.name ?? product.name,
    description: sketch.description ?? product.description,
    quantity: sketch.quantity,
    unit: product.unit,
    unit_price: sketch.price === undefined ? product.list_price : sketch.price,
    currency: deal.currency,
    discount: sketch.discount ?? null,
    tax_category,
    tax_rate,
    optional: sketch.optional ?? false,
    trade_in: sketch.tradeIn ?? false,
    discount_amount: sketch.rebate ?? null,
    // The product's cost is in pounds; in other currencies it is on the line where it is known.
    unit_cost: sketch.cost ?? (deal.currency === 'GBP' ? product.cost : null),
    billing: sketch.billing ?? 'once',
    term_months: sketch.months ?? null,
    part_of: sketch.partOf ?? null,
    parts_shown: sketch.partsShown ?? null,
    weight: product.weight,
  };
}

/** Deals of the demo, with their line items. */
export const { deals, lineItems } = buildDeals();
