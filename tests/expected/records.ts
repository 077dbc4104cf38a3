/** Prints the demo's records as JSON, with the awkward deals only, for tests/expected/calculations.py. */
import { awkwardDeals } from '../../demo/crm/deals';
import { demoRecords } from '../../demo/crm/index';

const deals = demoRecords.deals.filter(({ id }) => awkwardDeals.has(id));
process.stdout.write(JSON.stringify({ ...demoRecords, deals }));
