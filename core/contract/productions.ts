import { boolean, listOf, number, requiredMapOf, shape, text, uuid } from '../shape/shape';
import { documentChange, wantedChanges } from '../production/document-change';
import { inlineShape } from '../template/inlines';
import {
  all,
  bridgeStep,
  count,
  day,
  decimalText,
  fieldSchema,
  fieldValue,
  finding,
  moment,
  printedFigure,
  uuidText,
  words,
  workings,
} from './answers';
import { endpoint } from './endpoint';
import { isoDay, listQuery } from './list-query';

/** A drawing of a page, or the glyphs that all of them share. Its digest names it from then on. */
const drawn = {
  digest: words(),
  /** Absent where the caller has it, and of pages that are not asked for. */
  drawing: words().optional(),
};

/** What was changed for one document, with who did it and when. */
export const madeChange = shape({
  id: uuidText(),
  change: documentChange,
  label: words(),
  by: words(),
  at: moment(),
}).required();

const ofProduction = shape({ id: uuid().required() }).required();

/** What is shown of a document that is not filed. */
const shown = {
  /** `called`: what a record of its type is called in a sentence. */
  record: shape({ type: words(), called: words(), id: words(), name: words() }).required(),
  issueDate: day(),
  /** The margin note of each section on the page, by block. */
  sections: requiredMapOf(words()),
  findings: all(finding),
  figures: all(printedFigure),
  bridge: all(bridgeStep).nullable(),
  /** Where each value on the pages came from, and how it is printed. */
  values: requiredMapOf(shape({ block: words(), workings: words(), text: words() }).required()),
  fileName: words(),
  title: words(),
  /** How many values were read for it. */
  read: count(),
  leftOut: all(shape({ block: words(), note: words() }).required()),
  /** What is done once it is filed, in sentences; without what its conditions skip. */
  afterFiling: all(words()),
  /** What was changed for this document: the values on its pages that are printed otherwise, by the change. */
  changed: requiredMapOf(all(words())),
  /** The margin notes of values that were given for it, by the values on its pages. */
  givenNotes: requiredMapOf(words()),
  /** What the template asks for, by its paths: whether it was said for this document, and whether it may stay blank. */
  asks: all(shape({ path: words(), given: boolean().required(), optional: boolean().required() }).required()),
  /** The fields that findings and changes are about, and what is asked for, by their paths: with their values, and the record that each is on. */
  fields: requiredMapOf(
    shape({
      field: fieldSchema,
      value: fieldValue(),
      record: shape({ type: words(), id: words(), version: words().optional() }).optional().default(undefined),
    }).required(),
  ),
  proved: shape({ sums: count() }).required(),
  currency: words().nullable(),
  /** The edition it is in, and those it could be in. */
  edition: words(),
  editions: all(shape({ id: words(), label: words() }).required()),
  /** The plan that it goes by. */
  plan: words(),
  annexes: all(shape({ label: words(), sha256: words(), pages: count() }).required()),
  pages: shape({
    /** SVG definitions. */
    glyphs: shape(drawn).required(),
    /** An SVG element each. */
    pages: all(
      shape({
        ...drawn,
        /** Ids of the values on it. */
        values: all(words()),
        /** Sections on it, and whether they begin and end here. */
        sections: all(shape({ id: words(), begins: boolean().required(), ends: boolean().required() }).required()),
      }).required(),
    ),
    pageSize: shape({ width: number().required(), height: number().required() }).required(),
  }).required(),
};

const madeChoices = shape({
  plan: text(100),
  edition: text(100),
  houseStyle: text(100),
  asNew: boolean(),
  issueDate: isoDay(),
});

const proof = shape({
  /** Names the production: to explain it, to print a trial of it, to file it. */
  id: uuidText(),
  /** Counts how often it was looked at: what is changed or filed names the one that was seen. */
  revision: count(),
  /** What was changed for this document alone. */
  changes: all(madeChange),
  /** What is not left to the template. */
  choices: madeChoices.required(),
  /** The days that it may be issued on. */
  issueDates: shape({ from: day(), until: day() }).required(),
  /**
   * The document that it is the next revision of, and the number that it has as such; or takes a new one all the same. `replaces`: on the
   * record it takes the place of that one's file, which is kept as a revision.
   */
  revises: shape({
    id: uuidText(),
    number: words(),
    next: words(),
    asNew: boolean().required(),
    replaces: boolean().required(),
  })
    .nullable()
    .defined(),
  template: shape({
    id: words(),
    name: words(),
    kind: words(),
    versionId: uuidText(),
    version: count(),
    plans: all(shape({ id: words(), label: words() }).required()),
  }).required(),
  ...shown,
}).required();

/** The proof of a draft: it names no production, so nothing can be filed from it. */
export const draftProof = shape({ ...shown, houseStyle: words() }).required();

/** Which drawings come with a proof. */
export const drawingsWanted = {
  /** Digests of drawings that are at hand already: they do not come again. */
  has: listOf(text(64).required(), 1_000),
  /** Numbers of the pages whose drawings are to come with the answer; of others they can be asked for. The first two, where none is said. */
  near: listOf(number().integer().min(1).required(), 100),
};

export const productionEndpoints = {
  'GET /productions': endpoint({
    about:
      'The same as to begin one by POST, with nothing chosen but the edition and the plan: browsers send for it before the page has run.',
    may: 'prove',
    query: shape({
      template: text(100).min(1).required(),
      /** The id of the record. */
      record: text(100).min(1).required(),
      edition: text(100),
      plan: text(100),
      /** Whether it takes a number of its own, though a document like it was filed before. */
      asNew: boolean(),
      /** The day of issue, where it is not today. */
      issueDate: isoDay(),
      /** A document in hand, to go on with. */
      production: uuid(),
    }).required(),
    answer: proof,
    problems: [404, 409, 422],
    twice: 'safe',
    perMinute: 300,
  }),
  'POST /productions': endpoint({
    about:
      'Begins a production and proofs it: the pages, findings and figures of a document that is not filed. It is kept for a day.',
    may: 'prove',
    body: shape({
      template: text(100).min(1).required(),
      /** The id of the record. */
      record: text(100).min(1).required(),
      /** What is not left to the template. */
      choices: madeChoices,
      /** The production to go on with, and the revision of it that was seen. */
      production: uuid(),
      revision: number().integer().min(0),
      /** All that shall be otherwise in this document; where it is absent, what is in hand stays. */
      changes: wantedChanges(),
      /** The proof that was looked at before this one: what changed on the record since is told. */
      since: uuid(),
      /** What the caller wrote to the record meanwhile, as it was typed: it is no news. */
      written: listOf(shape({ path: text(1_000).min(1).required(), value: text(10_000).defined() }).required(), 100),
      ...drawingsWanted,
    }).required(),
    answer: proof,
    status: 201,
    problems: [404, 409, 422],
    twice: 'again',
    perMinute: 300,
  }),
  'GET /productions/{id}/pages': endpoint({
    about: 'Drawings of some pages of a proof, in their order, as SVG elements.',
    may: 'prove',
    parameters: ofProduction,
    query: shape({
      skip: listQuery.skip,
      top: number().integer().min(1).max(20).default(5),
    }).required(),
    answer: shape({ pages: all(shape({ digest: words(), drawing: words() }).required()) }).required(),
    problems: [404, 422],
    twice: 'safe',
    perMinute: 300,
  }),
  'GET /productions/{id}/changed': endpoint({
    about: 'Whether the record says something else by now than it did for this proof.',
    may: 'prove',
    parameters: ofProduction,
    answer: shape({ changed: boolean().required() }).required(),
    problems: [404, 503],
    twice: 'safe',
  }),
  'GET /productions/{id}/parts': endpoint({
    about: 'What of a document can be changed for it alone: its sections, its words, the blocks that can be left out.',
    may: 'prove',
    parameters: ofProduction,
    answer: shape({
      sections: all(shape({ id: words(), note: words(), prints: boolean().required() }).required()),
      blocks: all(
        shape({
          id: words(),
          name: words(),
          texts: all(shape({ id: words(), content: all(inlineShape) }).required()),
          mayBeLeftOut: boolean().required(),
        }).required(),
      ),
    }).required(),
    problems: [404],
    twice: 'safe',
  }),
  'GET /productions/{id}/work-back': endpoint({
    about:
      'The single values of the record (discounts, prices, quantities) that would have a figure come to a wanted sum, exactly or nearly.',
    may: 'prove',
    parameters: ofProduction,
    query: shape({
      figure: text(200).min(1).required(),
      /** A decimal number: `18000.00`. */
      wanted: text(40)
        .matches(/^-?\d{1,20}(\.\d{1,10})?$/, 'a number such as 18000.00')
        .required(),
    }).required(),
    answer: shape({
      currency: words(),
      now: decimalText(),
      ways: all(
        shape({
          path: words(),
          label: words(),
          isPercent: boolean().required(),
          before: words(),
          after: words(),
          total: decimalText(),
          difference: decimalText(),
          internal: all(shape({ label: words(), before: words(), after: words() }).required()),
        }).required(),
      ),
    }).required(),
    problems: [404, 422],
    twice: 'safe',
    perMinute: 60,
  }),
  'GET /productions/{id}/trial': endpoint({
    about: 'A PDF to look at, marked as a trial on every page.',
    may: 'prove',
    parameters: ofProduction,
    answer: { file: 'application/pdf' },
    problems: [404, 422],
    twice: 'safe',
    perMinute: 120,
  }),
  'GET /productions/{id}/workings': endpoint({
    about: 'How one value of a proof came about.',
    may: 'prove',
    parameters: ofProduction,
    query: shape({ value: text(1_000).min(1).required() }).required(),
    answer: workings,
    problems: [404],
    twice: 'safe',
  }),
};
