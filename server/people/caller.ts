import type { Role } from '../../core/contract/permissions';
import type { AccessRules } from './access';

/** Who asks for something: a person at a page, or a program with a person's token. */
export interface Caller {
  id: string;
  name: string;
  email: string;
  /** What they may do now: of a token, the roles that its person still has. */
  roles: readonly Role[];
  rules: AccessRules;
  via: 'page' | 'token';
  /** The session of a person at a page. */
  session?: string;
}
