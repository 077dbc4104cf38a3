import { ROLES, type Role } from '../core/contract/permissions';
import { usualRules } from '../server/people/access';
import type { Caller } from '../server/people/caller';

/** A person with some roles, all of them where none is named, for tests that call the server's functions themselves. */
export const callerWith = (...roles: Role[]): Caller => ({
  id: '01900000-0000-7000-8000-000000000001',
  name: 'Tamar Whitlow',
  email: 'tamar@orrinvale.example',
  roles: roles.length > 0 ? roles : ROLES,
  rules: usualRules,
  via: 'page',
});
