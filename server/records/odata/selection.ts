import { own } from '../../../core/record/own';
import type { PathTree } from '../../../core/record/paths';
import { fieldOf } from '../../../core/record/schema';
import { keyNamed, storedAs, type ODataSchema } from './csdl';

/** A path tree as `$select` and `$expand` (OData 4.01 URL conventions, 5.1.2 and 5.1.3). */
export function selection(schema: ODataSchema, type: string, paths: PathTree): string {
  const { select, expand } = options(schema, type, paths);
  return [`$select=${select}`, ...(expand ? [`$expand=${expand}`] : [])].join('&');
}

function options(schema: ODataSchema, type: string, paths: PathTree): { select: string; expand: string } {
  const field = (name: string) => fieldOf(schema.records, type, name);
  const select = new Set([
    keyNamed(schema, type).name,
    ...[...paths.fields].filter((name) => field(name) && !field(name)!.target),
  ]);
  for (const name of paths.fields) {
    const currency = storedAs(schema, type, name).currencyPath;
    if (currency) select.add(currency);
  }
  const expand = [...paths.related].map(([name, nested]) => {
    const { target = '', type: kind } = field(name)!;
    const inner = options(schema, target, nested);
    const isOrdered = kind !== 'records' || own(schema.ordered, type)?.has(name);
    const order = isOrdered ? '' : `;$orderby=${keyNamed(schema, target).name}`;
    return `${name}($select=${inner.select}${inner.expand ? `;$expand=${inner.expand}` : ''}${order})`;
  });
  return { select: [...select].join(','), expand: expand.join(',') };
}
