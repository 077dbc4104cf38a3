import type { Product } from './records';

type ProductRow = [sku: string, name: string, description: string | null, unit: string, price: string];

const PRODUCTS: ProductRow[] = [
  ['FR-640', 'Frame bay, aluminium, 6.4 m', 'Truss frame with gutter and cast feet', 'bay', '1840.00'],
  ['FR-320', 'Frame bay, aluminium, 3.2 m', 'For lean-to and propagation houses', 'bay', '1120.00'],
  ['GL-4T', 'Toughened glass, 4 mm', 'Cut to size, edges ground', 'm²', '38.40'],
  ['GL-16D', 'Diffuse double glazing, 16 mm', 'Haze 70 %, low-iron', 'm²', '96.75'],
  ['PC-16', 'Polycarbonate sheet, 16 mm', 'Twin wall, drip-free inside', 'm²', '27.30'],
  ['VM-48', 'Vent motor VM-48, 24 V', 'With bracket and limit switches', 'pc', '485.00'],
  ['RV-24', 'Ridge vent, aluminium, 2.4 m', 'Powder-coated, bird mesh', 'pc', '312.50'],
  ['CC-8', 'Climate controller CC-8', 'Eight zones, wall cabinet', 'pc', '2940.00'],
  ['CC-24', 'Climate controller CC-24', 'Twenty-four zones, remote access', 'pc', '6480.00'],
  ['RW-1', 'Rain and wind sensor', null, 'pc', '218.00'],
  ['TH-2', 'Temperature and humidity probe', 'Aspirated, calibrated', 'pc', '164.00'],
  ['IS-50', 'Irrigation skid IS-50', 'Pump, filter, two dosing channels', 'pc', '7350.00'],
  ['DL-16', 'Drip line, 16 mm', 'Pressure compensated, 0.3 m spacing', 'm', '0.4375'],
  ['LED-600', 'Grow light, LED, 600 W', 'Broad spectrum, dimmable', 'pc', '398.00'],
  ['SC-T', 'Thermal screen', 'Energy saving 47 %, flame retardant', 'm²', '11.85'],
  ['HP-51', 'Heating pipe, 51 mm', 'Rail pipe, welded on site', 'm', '14.20'],
  ['BO-200', 'Boiler, condensing, 200 kW', 'With flue and buffer connection', 'pc', '18600.00'],
  ['IN-D', 'Installation, day', 'Two fitters with tools', 'day', '980.00'],
  ['CR-D', 'Crane with driver, day', null, 'day', '1350.00'],
  ['GW-M', 'Groundwork', 'Excavation and strip foundation', 'm', '74.00'],
  ['EL-D', 'Electrician, day', null, 'day', '620.00'],
  ['CM-1', 'Commissioning', 'Settings, handover, first cold week', 'job', '1450.00'],
  ['SP-Y', 'Service plan, one year', 'Two visits, parts at cost', 'year', '1480.00'],
  ['TR-H', 'Training, half day', 'Up to six people', 'session', '420.00'],
  ['FR-T', 'Freight', null, 'load', '640.00'],
  ['ST-B', 'Potting bench, steel', 'Hot-dip galvanised', 'pc', '286.00'],
];

/** Products of the demo. */
export const products: Product[] = PRODUCTS.map(([sku, name, description, unit, list_price]) => ({
  id: `P-${sku}`,
  sku,
  name,
  description,
  unit,
  list_price,
  currency: 'GBP',
  tax_category: 'standard',
}));
