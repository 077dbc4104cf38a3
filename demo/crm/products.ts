import type { Product } from './records';

/** Weight in kilograms; none for work. */
type ProductRow = [
  sku: string,
  name: string,
  description: string | null,
  unit: string,
  price: string,
  cost: string,
  weight: string | null,
];

const PRODUCTS: ProductRow[] = [
  [
    'FR-640',
    'Frame bay, aluminium, 6.4 m',
    'Truss frame with gutter and cast feet',
    'bay',
    '1840.00',
    '1150.00',
    '310',
  ],
  ['FR-320', 'Frame bay, aluminium, 3.2 m', 'For lean-to and propagation houses', 'bay', '1120.00', '695.00', '185'],
  ['GL-4T', 'Toughened glass, 4 mm', 'Cut to size, edges ground', 'm²', '38.40', '21.60', '10'],
  ['GL-16D', 'Diffuse double glazing, 16 mm', 'Haze 70 %, low-iron', 'm²', '96.75', '61.40', '22.5'],
  ['PC-16', 'Polycarbonate sheet, 16 mm', 'Twin wall, drip-free inside', 'm²', '27.30', '15.90', '2.7'],
  ['VM-48', 'Vent motor VM-48, 24 V', 'With bracket and limit switches', 'pc', '485.00', '268.00', '9.4'],
  ['RV-24', 'Ridge vent, aluminium, 2.4 m', 'Powder-coated, bird mesh', 'pc', '312.50', '171.00', '14'],
  ['CC-8', 'Climate controller CC-8', 'Eight zones, wall cabinet', 'pc', '2940.00', '1620.00', '12'],
  ['CC-24', 'Climate controller CC-24', 'Twenty-four zones, remote access', 'pc', '6480.00', '3740.00', '19'],
  ['RW-1', 'Rain and wind sensor', null, 'pc', '218.00', '96.00', '1.2'],
  ['TH-2', 'Temperature and humidity probe', 'Aspirated, calibrated', 'pc', '164.00', '71.50', '0.6'],
  ['IS-50', 'Irrigation skid IS-50', 'Pump, filter, two dosing channels', 'pc', '7350.00', '4310.00', '145'],
  ['DL-16', 'Drip line, 16 mm', 'Pressure compensated, 0.3 m spacing', 'm', '0.4375', '0.2125', '0.04'],
  ['LED-600', 'Grow light, LED, 600 W', 'Broad spectrum, dimmable', 'pc', '398.00', '214.00', '8.2'],
  ['SC-T', 'Thermal screen', 'Energy saving 47 %, flame retardant', 'm²', '11.85', '6.35', '0.18'],
  ['HP-51', 'Heating pipe, 51 mm', 'Rail pipe, welded on site', 'm', '14.20', '7.90', '3.9'],
  ['BO-200', 'Boiler, condensing, 200 kW', 'With flue and buffer connection', 'pc', '18600.00', '11900.00', '640'],
  ['IN-D', 'Installation, day', 'Two fitters with tools', 'day', '980.00', '690.00', null],
  ['CR-D', 'Crane with driver, day', null, 'day', '1350.00', '1180.00', null],
  ['GW-M', 'Groundwork', 'Excavation and strip foundation', 'm', '74.00', '41.00', null],
  ['EL-D', 'Electrician, day', null, 'day', '620.00', '455.00', null],
  ['CM-1', 'Commissioning', 'Settings, handover, first cold week', 'job', '1450.00', '820.00', null],
  ['SP-Y', 'Service plan, one year', 'Two visits, parts at cost', 'year', '1480.00', '790.00', null],
  ['TR-H', 'Training, half day', 'Up to six people', 'session', '420.00', '185.00', null],
  ['FR-T', 'Freight', null, 'load', '640.00', '590.00', null],
  ['ST-B', 'Potting bench, steel', 'Hot-dip galvanised', 'pc', '286.00', '158.00', '34'],
  ['RM-M', 'Remote climate watch, month', 'Alarms and monthly report', 'month', '89.00', '31.00', null],
  ['ST-S', 'Spare parts shelf, year', 'Stock kept for you', 'year', '1260.00', '540.00', null],
];

/** Products of the demo. */
export const products: Product[] = PRODUCTS.map(([sku, name, description, unit, list_price, cost, weight]) => ({
  id: `P-${sku}`,
  sku,
  name,
  description,
  unit,
  list_price,
  currency: 'GBP',
  tax_category: 'standard',
  cost,
  weight,
}));
