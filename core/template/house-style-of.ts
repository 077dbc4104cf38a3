import type { HouseStyle } from './house-style';
import type { Pins, Template } from './template';

/** A house style with what a template has otherwise; another one that there is, where the wanted one is not. */
export function houseStyleOf(
  template: Pick<Template, 'houseStyle' | 'style'>,
  { houseStyles }: Pins,
  wanted = template.houseStyle,
): { houseStyle: HouseStyle; isThere: boolean } {
  const found = houseStyles.find(({ id }) => id === wanted);
  return { houseStyle: overridden(found ?? houseStyles[0]!, template), isThere: found !== undefined };
}

function overridden(houseStyle: HouseStyle, { style }: Pick<Template, 'style'>): HouseStyle {
  return style ? { ...houseStyle, ...style, colours: { ...houseStyle.colours, ...style.colours } } : houseStyle;
}
