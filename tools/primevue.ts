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
  'ConfirmDialog',
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

/** Leaves out of the components' scripts the styles that are in the file. */
const withoutStyles = {
  name: 'without-styles',
  enforce: 'pre' as const,
  resolveId: (id: string) => (id.startsWith('@primeuix/styles/') ? NO_STYLES : undefined),
  load: (id: string) => (id === NO_STYLES ? "export const style = '';" : undefined),
};
const NO_STYLES = '\0no-styles';

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

/** Drops the variables that no rule reads, and those that only such ones read. */
function withoutUnused(css: Root): Root {
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
