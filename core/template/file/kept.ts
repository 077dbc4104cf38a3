import { fitting } from '../../shape/faults';
import { clause } from '../clause';
import { houseStyle } from '../house-style';
import { FORMAT_VERSION, templateShape, type Pins, type Template } from '../template';
import { upgradedClause, upgradedHouseStyle, upgradedTemplate } from './upgrade';

/** A template version as it was published, with what it holds on to. */
export interface KeptVersion {
  template: Template;
  pins: Pins;
}

/** A stored version in the current format, whatever it was stored in. @throws Error for what was never a template */
export function keptVersion(stored: KeptVersion): KeptVersion {
  if (stored.template.formatVersion === FORMAT_VERSION) return stored;
  const { template, pins } = stored as { template: unknown; pins: Pins };
  return {
    template: fitting(templateShape, upgradedTemplate(template), 'the template'),
    pins: {
      clauses: pins.clauses.map((each) => fitting(clause, upgradedClause(each), 'the clause')),
      houseStyles: pins.houseStyles.map((each) => fitting(houseStyle, upgradedHouseStyle(each), 'the house style')),
    },
  };
}
