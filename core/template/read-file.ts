import { ValidationError } from 'yup';
import { FormulaError } from '../formula/ast';
import { parseFormula } from '../formula/parse';
import { placedFormulas } from './formulas';
import { visitBlocks } from './layout';
import { templateShape } from './shape';
import type { Template } from './template';

/** Something wrong in a template file: where, for people and as a path in the JSON; and what is to be done. */
export interface FileFault {
  /** `layout.body[3].attrs.columns[0].align` */
  path: string;
  sentence: string;
}

const MOST_FAULTS = 20;

/** Reads a template in Lumbix's file format. Whatever is wrong is told with its place; nothing is guessed. */
export function readTemplateFile(source: string): { template: Template } | { faults: FileFault[] } {
  let json: unknown;
  try {
    json = JSON.parse(source.replace(/^\uFEFF/, ''));
  } catch (problem) {
    return { faults: [{ path: '', sentence: `The file is not JSON: ${(problem as Error).message}.` }] };
  }
  const faults = shapeFaults(json);
  if (faults.length > 0) return { faults };
  const { $schema: _schema, ...template } = json as Template & { $schema?: string };
  const meant = meaningFaults(template);
  return meant.length > 0 ? { faults: meant } : { template };
}

function shapeFaults(json: unknown): FileFault[] {
  try {
    templateShape.validateSync(json, { strict: true, abortEarly: false });
    return [];
  } catch (problem) {
    if (!(problem instanceof ValidationError)) throw problem;
    const all = problem.inner.length > 0 ? problem.inner : [problem];
    // One reason for each place is enough.
    const first = [...new Map([...all].reverse().map((each) => [each.path, each])).values()].reverse();
    return first.slice(0, MOST_FAULTS).map((each) => {
      const path = each.path ?? '';
      return { path, sentence: `${placeIn(json, path)}: ${reasonOf(each)}` };
    });
  }
}

/** What is wrong with one value, by the kind of rule it breaks. */
function reasonOf({ type, message, params = {}, value = params.value }: ValidationError & { value?: unknown }): string {
  const given = typeof value === 'string' ? `“${value.slice(0, 60)}”` : JSON.stringify(value)?.slice(0, 60);
  switch (type) {
    case 'optionality':
    case 'required':
    case 'nullable':
      return 'this is missing.';
    case 'oneOf':
      return `${given} stands here, but this is one of ${String(params.values)}.`;
    case 'noUnknown':
      return `there is no property ${String(params.unknown)} here; look at how it is written.`;
    case 'typeError':
      return `${given} stands here, but a ${params.type === 'array' ? 'list' : String(params.type)} belongs here.`;
    case 'matches':
      return `${given} stands here, but this takes ${message}.`;
    case 'min':
      return params.min === 1 && Array.isArray(value) ? 'at least one belongs here.' : `${given} is less than ${String(params.min)}.`; // prettier-ignore
    case 'max':
      return typeof value === 'string' ? `the text is longer than ${String(params.max)} characters.` : `${given} is more than ${String(params.max)}.`; // prettier-ignore
    default:
      return `${given} does not belong here.`;
  }
}

/** A path in words, by the names of what it leads through: "In the lineTable “lines”, the column “net”, align". */
function placeIn(json: unknown, path: string): string {
  const steps = path.match(/[^.[\]"]+/g) ?? [];
  const words: string[] = [];
  let at = json;
  for (const step of steps) {
    at = (at as Record<string, unknown> | undefined)?.[step];
    const { type, id, label, name, attrs } = Object(at) as Record<string, unknown>;
    const called = (Object(attrs) as Record<string, unknown>).id ?? id ?? name ?? label;
    if (typeof called === 'string' && /^\d+$/.test(step)) words.push(typeof type === 'string' && attrs ? `the ${type} “${called}”` : `“${called}”`); // prettier-ignore
  }
  const last = steps.at(-1);
  return [words.length > 0 ? `In ${words.join(', ')}` : 'In the template', last && /^\D/.test(last) && last]
    .filter(Boolean)
    .join(', ');
}

/** What a shape cannot say: ids that stand twice, formulas that cannot be read. */
function meaningFaults(template: Template): FileFault[] {
  const faults: FileFault[] = [];
  const ids = new Set<string>();
  const { header, followingHeader, footer, body } = template.layout;
  for (const part of [header, followingHeader, footer, body]) {
    visitBlocks(part ?? [], ({ type, attrs: { id } }) => {
      if (ids.has(id)) faults.push({ path: id, sentence: `Two blocks are called “${id}”, one of them the ${type}. Give one another id.` }); // prettier-ignore
      ids.add(id);
    });
  }
  try {
    for (const { formula, place } of placedFormulas(template)) {
      try {
        if (formula !== '') parseFormula(formula);
      } catch (problem) {
        if (!(problem instanceof FormulaError)) throw problem;
        faults.push({ path: place.block ?? '', sentence: `In ${place.words}, the formula ${formula} cannot be read: ${problem.message}` }); // prettier-ignore
      }
    }
  } catch (problem) {
    if (!(problem instanceof FormulaError)) throw problem;
    faults.push({ path: '', sentence: problem.message });
  }
  return faults.slice(0, MOST_FAULTS);
}
