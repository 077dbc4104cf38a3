import type { Account, Contact } from './records';

type AccountRow = [
  id: string,
  name: string,
  street: string,
  postcode: string,
  city: string,
  country: string,
  vat: string | null,
];

const ACCOUNTS: AccountRow[] = [
  ['A-101', 'Marlow Fen Nurseries', 'Drove End', 'EL4 7QX', 'Withy', 'GB', 'GB 000 0001 01'],
  ['A-102', 'Kestrel Hill Botanic Garden', '2 Observatory Lane', 'EL1 2KH', 'Elmsea', 'GB', 'GB 000 0001 02'],
  ['A-103', 'Kwekerij Ganzenpad', 'Ganzenpad 18', '2680 ZZ', 'Zuidergouw', 'NL', 'NL000000103B01'],
  ['A-104', 'Viveros Campolindo', 'Camino de la Noria 7', '04990', 'Valdesol', 'ES', 'ESX0000104'],
  ['A-105', 'Saltmere Leaf & Herb', 'Unit 4, Saltmere Yard', 'EL9 1SA', 'Saltmere', 'GB', 'GB 000 0001 05'],
  ['A-106', 'مزارع نخيل النور', 'طريق الواحة ١٢', '00000', 'واحة النور', 'AE', '100000000000106'],
  ['A-107', 'Wren & Daughters', 'The Potting Shed, Hob Lane', 'EL6 3WD', 'Hobsley', 'GB', null],
  ['A-108', 'The Larch School', 'Larch Avenue', 'EL2 8LS', 'Elmsea', 'GB', null],
  ['A-109', 'Atelier Hoshino', '3-14 Wakamidori', '000-0109', 'Minatohara', 'JP', 'T0000000000109'],
  ['A-110', 'M. Tamsin', '11 Quince Row', 'EL3 5MT', 'Elmsea', 'GB', null],
  ['A-111', 'Alpengrün Gärtnerei', 'Sonnhalde 5', '9990', 'Oberwies', 'CH', 'CHE-000.000.111 MWST'],
  [
    'A-112',
    'Dorran Glass "North" <Sales> & Sons 🌱',
    'Block #3 [rear], 5$ Lane',
    'EL8 0DG',
    'Dorran\\Quay',
    'GB',
    'GB 000 0001 12',
  ],
  ['A-113', 'Ballyfern Growers', 'Fern Road', 'X00 B113', 'Ballyfern', 'IE', 'IE0000113X'],
  ['A-114', 'Szklarnie Brzozowe', 'ul. Brzozowa 22', '00-114', 'Nowolas', 'PL', 'PL0000000114'],
  ['A-115', 'Prairie Lantern Farms', '400 Lantern Road', '00115', 'Harrow Flats', 'US', null],
  ['A-116', 'Tansy Court Hotel', 'Tansy Court', 'EL7 7TC', 'Upper Tansy', 'GB', 'GB 000 0001 16'],
];

/** Accounts of the demo. */
export const accounts: Account[] = ACCOUNTS.map(([id, name, street, postcode, city, country, vat_number], index) => ({
  id,
  name,
  street,
  postcode,
  city,
  country,
  vat_number,
  phone: `+00 5550 ${String(101 + index).padStart(4, '0')}`,
}));

type ContactRow = [
  id: string,
  account: string,
  salutation: string | null,
  given: string,
  family: string,
  title: string,
];

const CONTACTS: ContactRow[] = [
  ['C-201', 'A-101', 'Ms', 'Odile', 'Penhallow', 'Head grower'],
  ['C-202', 'A-102', 'Dr', 'Corin', 'Ashdown', 'Curator'],
  ['C-203', 'A-103', 'Mr', 'Joost', 'Ganzeveld', 'Owner'],
  ['C-204', 'A-104', 'Ms', 'Inés', 'Campolindo', 'Production manager'],
  ['C-205', 'A-105', 'Mr', 'Perrin', 'Oakes', 'Director'],
  ['C-206', 'A-106', 'Mr', 'سالم', 'النوري', 'Farm manager'],
  ['C-207', 'A-107', 'Ms', 'Maud', 'Wren', 'Partner'],
  ['C-208', 'A-108', 'Mrs', 'Edda', 'Larchwood', 'Bursar'],
  ['C-209', 'A-109', 'Ms', 'Aoi', 'Hoshino', 'Founder'],
  ['C-210', 'A-110', null, 'M.', 'Tamsin', 'Gardener'],
  ['C-211', 'A-111', 'Mr', 'Urs', 'Alpengrün', 'Owner'],
  ['C-212', 'A-112', 'Mr', 'D’Arcy *Lee*', 'O’Dorran_#1', 'Buyer'],
  ['C-213', 'A-113', 'Ms', 'Nuala', 'Fernside', 'Manager'],
  ['C-214', 'A-114', 'Mr', 'Bolesław', 'Brzoza', 'Owner'],
  ['C-215', 'A-115', 'Mr', 'Wendell', 'Lantern', 'Owner'],
  ['C-216', 'A-116', 'Ms', 'Isolde', 'Tansy', 'Estate manager'],
];

/** Contacts of the demo. */
export const contacts: Contact[] = CONTACTS.map(([id, account_id, salutation, given_name, family_name, job_title]) => ({
  id,
  account_id,
  salutation,
  given_name,
  family_name,
  job_title,
  email: `contact-${id.slice(2)}@customer.example`,
}));
