/** Prints the demo's records as JSON, for tests/expected/calculations.py. */
import { demoRecords } from '../../demo/crm/index';

process.stdout.write(JSON.stringify(demoRecords));
