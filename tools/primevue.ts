import BaseStyle from '@primevue/core/base/style';
import { Theme } from '@primeuix/styled';
import postcss, { type Declaration, type Root } from 'postcss';
import { addComponent, addTemplate, addVitePlugin, useNuxt } from 'nuxt/kit';
import { preset } from '../app/theme';

/** What pages use of PrimeVue, by its tags; each is loaded with the pages that have it. */
const TAGS = [
  'AutoComplete',
  'Breadcrumb',
  'Button',
  'Checkbox',
  'Column',
  'DataTable',
  'DatePicker',
  'Dialog',
  'FileUpload',
  'InputNumber',
  'InputText',
  'Listbox',
  'Menu',
  'Message',
  'MultiSelect',
  'Popover',
  'Select',
  'SelectButton',
  'Skeleton',
  'Step',
  'StepList',
  'Stepper',
  'Tab',
  'TabList',
  'TabPanel',
  'TabPanels',
  'Tabs',
  'Textarea',
  'Toast',
];

/** A component's styles: `getThemeStyleSheet` gives its tokens and rules within `<style>`. */
interface Styles {
  getThemeStyleSheet(): string;
  getStyleSheet(): string;
}

/**
 * PrimeVue in Lumbix's look. Its styles are made here once and come as a file, so that browsers neither make them for each page nor
 * load what makes them.
 */
export async function primeVue(): Promise<void> {
  for (const name of TAGS) addComponent({ name, export: 'default', filePath: `primevue/${name.toLowerCase()}` });
  const css = await themeCss();
  const { dst } = addTemplate({ filename: 'primevue.css', write: true, getContents: () => css });
  useNuxt().options.css.unshift(dst);
  addVitePlugin(withoutStyles);
}

/**
 * Leaves out of the components' scripts the styles that are in the file, and the search for them: each part of PrimeVue, each cell of
 * a table too, would look in the page whether its style elements are there.
 */
const withoutStyles = {
  name: 'without-styles',
  enforce: 'pre' as const,
  resolveId: (id: string) => (standInOf(id) === undefined ? undefined : STAND_IN + id),
  load: (id: string) => (id.startsWith(STAND_IN) ? standInOf(id.slice(STAND_IN.length)) : undefined),
};
const STAND_IN = '\0without-styles:';

/** What stands for a module of styles. */
function standInOf(module: string): string | undefined {
  if (module.startsWith('@primeuix/styles/')) return "export const style = '';";
  if (module === '@primevue/core/base') {
    return 'export default { isStyleNameLoaded: () => true, setLoadedStyleName() {}, clearLoadedStyleNames() {} };';
  }
  if (module === '@primevue/core/usestyle') return 'export const useStyle = () => ({});';
  return undefined;
}

async function themeCss(): Promise<string> {
  Theme.setTheme({ preset, options: { darkModeSelector: '.never', cssLayer: false } });
  const base = BaseStyle as unknown as Styles & { getCommonThemeStyleSheet(): string };
  const sheets = [base.getStyleSheet(), base.getCommonThemeStyleSheet(), base.getThemeStyleSheet()];
  for (const name of Object.keys(preset.components ?? {})) {
    const { default: styles } = (await import(`primevue/${name}/style`)) as { default: Styles };
    sheets.push(styles.getStyleSheet(), styles.getThemeStyleSheet());
  }
  const whole = postcss.parse(sheets.join('').replace(/<style[^>]*>|<\/style>/g, '\n'));
  return withoutUnused(whole).toString();
}

/** Rules for a dark mode that PrimeVue would switch, and for severities that no screen has. */
const NEVER_USED = /\.never\b|-(help|contrast)\b/;

/** Drops the rules that are never used, the variables that no rule reads, and those that only such ones read. */
function withoutUnused(css: Root): Root {
  css.walkRules((rule) => {
    if (NEVER_USED.test(rule.selector)) rule.remove();
  });
  for (let dropped = 1; dropped > 0;) {
    dropped = 0;
    const read = new Set<string>();
    const declared: Declaration[] = [];
    css.walkDecls((each) => {
      if (each.prop.startsWith('--')) declared.push(each);
      for (const [, name] of each.value.matchAll(/var\((--[\w-]+)/g)) read.add(name!);
    });
    for (const each of declared) {
      if (read.has(each.prop)) continue;
      each.remove();
      dropped++;
    }
  }
  return css;
}
