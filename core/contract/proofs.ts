import { anything, number, requiredMapOf, shape, text, uuid } from '../shape/shape';
import {
  all,
  bridgeStep,
  count,
  day,
  finding,
  printedFigure,
  printedValue,
  uuidText,
  words,
  workings,
} from './answers';
import { endpoint } from './endpoint';

const proofQuery = {
  deal: text(100).min(1).required(),
  template: text(100).min(1).required(),
  edition: text(100),
  houseStyle: text(100),
};

export const proofEndpoints = {
  'GET /proof': endpoint({
    about: 'A proof: the pages, findings and figures of a document that is not filed.',
    may: 'prove',
    query: shape(proofQuery).required(),
    answer: shape({
      /** Names the proof, to ask how its values came about. */
      key: uuidText(),
      template: shape({
        id: words(),
        name: words(),
        kind: words(),
        versionId: uuidText(),
        version: count(),
      }).required(),
      record: shape({ id: words(), name: words() }).required(),
      issueDate: day(),
      /** The margin note of each section on the page, by block. */
      sections: requiredMapOf(words()),
      findings: all(finding),
      figures: all(printedFigure),
      bridge: all(bridgeStep).nullable(),
      values: requiredMapOf(printedValue),
      fileName: words(),
      title: words(),
      used: requiredMapOf(words()),
      leftOut: all(shape({ block: words(), note: words() }).required()),
      proved: shape({ sums: count() }).required(),
      currency: words().nullable(),
      /** The edition it is in, and those it could be in. */
      edition: words(),
      editions: all(shape({ id: words(), label: words() }).required()),
      annexes: all(shape({ label: words(), sha256: words() }).required()),
      pages: shape({
        /** The glyphs that all pages share, as SVG definitions; then one SVG element each. */
        glyphs: anything<string>('SVG definitions.'),
        pages: all(anything<string>('An SVG element.')),
        pageSize: shape({ width: number().required(), height: number().required() }).required(),
      }).required(),
    }).required(),
    problems: [404, 422],
    twice: 'safe',
    perMinute: 300,
  }),
  'GET /proof/trial': endpoint({
    about: 'A PDF to look at, marked as a trial on every page.',
    may: 'prove',
    query: shape(proofQuery).required(),
    answer: { file: 'application/pdf' },
    problems: [404, 422],
    twice: 'safe',
    perMinute: 120,
  }),
  'GET /proof/workings': endpoint({
    about: 'How one value of a proof came about.',
    may: 'prove',
    query: shape({ key: uuid().required(), id: text(1_000).min(1).required() }).required(),
    answer: workings,
    problems: [404],
    twice: 'safe',
  }),
};
