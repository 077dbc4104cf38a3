import { clausesOf, houseStylesOf } from '../core/template/assemble';
import type { Pins, Template } from '../core/template/template';
import { shipped } from '../demo/shipped';

/** A shipped template with the house styles and clauses that it asks for. */
export function shippedTemplate(id: string): { template: Template; pins: Pins } {
  const template = shipped.templates.find((each) => each.id === id)!;
  const clauses = clausesOf(template, shipped.clauses);
  const styles = houseStylesOf(template);
  return {
    template,
    pins: {
      houseStyles: shipped.houseStyles.filter((each) => styles.includes(each.id)),
      clauses: shipped.clauses.filter((each) => clauses.includes(each.id)),
    },
  };
}
