import type { Role } from '../core/contract/permissions';

/** Made-up people of the demo's company, who sign in with a click: one who does everything, then one for each role. */
export const demoPeople: readonly { name: string; email: string; roles: readonly Role[] }[] = [
  {
    name: 'Tamar Whitlow',
    email: 'tamar@orrinvale.example',
    roles: ['author', 'producer', 'finance', 'administrator'],
  },
  { name: 'Maud Ferris', email: 'maud@orrinvale.example', roles: ['author'] },
  { name: 'Rufus Pell', email: 'rufus@orrinvale.example', roles: ['producer'] },
  { name: 'Ines Aldan', email: 'ines@orrinvale.example', roles: ['finance'] },
  { name: 'Gil Arden', email: 'gil@orrinvale.example', roles: ['reader'] },
  { name: 'Oona Brack', email: 'oona@orrinvale.example', roles: ['administrator'] },
];
