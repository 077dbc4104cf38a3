import { CRM, crmConnection } from './odata/connection';
import { ODataSource } from './odata/odata-source';
import type { RecordSource } from './source';

export { CRM };

/** The CRM. */
export const crm: RecordSource = new ODataSource(crmConnection);
