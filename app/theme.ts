import { definePreset } from '@primeuix/themes';
import autocomplete from '@primeuix/themes/aura/autocomplete';
import badge from '@primeuix/themes/aura/badge';
import base from '@primeuix/themes/aura/base';
import breadcrumb from '@primeuix/themes/aura/breadcrumb';
import button from '@primeuix/themes/aura/button';
import checkbox from '@primeuix/themes/aura/checkbox';
import chip from '@primeuix/themes/aura/chip';
import datatable from '@primeuix/themes/aura/datatable';
import datepicker from '@primeuix/themes/aura/datepicker';
import dialog from '@primeuix/themes/aura/dialog';
import fileupload from '@primeuix/themes/aura/fileupload';
import iconfield from '@primeuix/themes/aura/iconfield';
import inputnumber from '@primeuix/themes/aura/inputnumber';
import inputtext from '@primeuix/themes/aura/inputtext';
import listbox from '@primeuix/themes/aura/listbox';
import menu from '@primeuix/themes/aura/menu';
import message from '@primeuix/themes/aura/message';
import multiselect from '@primeuix/themes/aura/multiselect';
import paginator from '@primeuix/themes/aura/paginator';
import popover from '@primeuix/themes/aura/popover';
import progressbar from '@primeuix/themes/aura/progressbar';
import ripple from '@primeuix/themes/aura/ripple';
import select from '@primeuix/themes/aura/select';
import selectbutton from '@primeuix/themes/aura/selectbutton';
import skeleton from '@primeuix/themes/aura/skeleton';
import stepper from '@primeuix/themes/aura/stepper';
import tabs from '@primeuix/themes/aura/tabs';
import textarea from '@primeuix/themes/aura/textarea';
import toast from '@primeuix/themes/aura/toast';
import togglebutton from '@primeuix/themes/aura/togglebutton';
import tooltip from '@primeuix/themes/aura/tooltip';
import virtualscroller from '@primeuix/themes/aura/virtualscroller';

/** The colours of Lumbix are named in main.css, where they follow light and dark; shades that no component uses are the nearest. */
const colour = (name: string) => `var(--${name})`;
const verdigris = {
  50: colour('verdigris-50'), 100: colour('verdigris-100'), 200: colour('verdigris-100'), 300: colour('verdigris'), 400: colour('verdigris'),
  500: colour('verdigris'), 600: colour('verdigris'), 700: colour('verdigris'), 800: colour('verdigris'), 900: colour('verdigris'),
  950: colour('verdigris'),
}; // prettier-ignore
const SHADES = [0, 50, 100, 200, 300, 400, 500, 600, 700, 800, 900, 950] as const;
const stone = Object.fromEntries(SHADES.map((shade) => [shade, colour(`stone-${shade}`)]));

/** The tokens of what is used; those of all other components would only be loaded. */
const used = {
  ...base,
  components: {
    autocomplete,
    badge,
    breadcrumb,
    button,
    checkbox,
    chip,
    datatable,
    datepicker,
    dialog,
    fileupload,
    iconfield,
    inputnumber,
    inputtext,
    listbox,
    menu,
    message,
    multiselect,
    paginator,
    popover,
    progressbar,
    ripple,
    select,
    selectbutton,
    skeleton,
    stepper,
    tabs,
    textarea,
    toast,
    togglebutton,
    tooltip,
    virtualscroller,
  },
};

/** PrimeVue in Lumbix's look: square-cornered, quiet, one dark button. */
export const preset = definePreset(used, {
  primitive: { borderRadius: { none: '0', xs: '2px', sm: '3px', md: '3px', lg: '3px', xl: '3px' } },
  semantic: {
    primary: verdigris,
    transitionDuration: '120ms',
    focusRing: { width: '2px', style: 'solid', color: colour('verdigris'), offset: '1px' },
    formField: { paddingX: '10px', paddingY: '5px', borderRadius: '3px' },
    colorScheme: {
      light: {
        surface: stone,
        primary: {
          color: colour('ink'),
          contrastColor: colour('on-colour'),
          hoverColor: colour('stone-800'),
          activeColor: colour('stone-700'),
        },
        highlight: {
          background: colour('verdigris-50'),
          focusBackground: colour('verdigris-100'),
          color: colour('ink'),
          focusColor: colour('ink'),
        },
        text: { color: colour('ink'), mutedColor: colour('ink-quiet') },
        formField: {
          borderColor: colour('hairline'),
          hoverBorderColor: colour('stone-400'),
          focusBorderColor: colour('verdigris'),
          placeholderColor: colour('ink-faint'),
          shadow: 'none',
        },
      },
    },
  },
  components: {
    datatable: {
      headerCell: {
        padding: '8px 10px',
        background: colour('sheet'),
        color: colour('ink-quiet'),
        borderColor: colour('hairline'),
      },
      bodyCell: { padding: '8px 10px', borderColor: colour('hairline-soft') },
      columnTitle: { fontWeight: '500' },
    },
    button: { root: { paddingX: '12px', paddingY: '6px', label: { fontWeight: '500' } } },
    dialog: { root: { shadow: '0 8px 32px #1c262933' } },
    message: {
      root: { borderWidth: '1px' },
      content: { padding: '8px 11px' },
      text: { fontSize: '13px', fontWeight: '400' },
      colorScheme: {
        light: {
          error: { background: colour('brick-50'), borderColor: colour('brick'), color: colour('ink'), shadow: 'none' },
          warn: { background: colour('brass-50'), borderColor: colour('brass'), color: colour('ink'), shadow: 'none' },
        },
      },
    },
    tabs: {
      tab: { padding: '11px 0 9px', fontWeight: '500', hoverColor: colour('ink'), margin: '0 18px -1px 0' },
      tabpanel: { padding: '0' },
    },
    togglebutton: {
      root: { padding: '1px', fontWeight: '400', sm: { fontSize: '12px', padding: '1px' } },
      content: { padding: '3px 8px', checkedShadow: 'none', sm: { padding: '1px 6px' } },
      colorScheme: {
        light: {
          root: {
            background: colour('stone-100'),
            checkedBackground: colour('stone-100'),
            hoverBackground: colour('stone-100'),
            borderColor: colour('hairline'),
            checkedBorderColor: colour('hairline'),
            color: colour('ink-quiet'),
            hoverColor: colour('ink'),
            checkedColor: colour('ink'),
          },
          content: { checkedBackground: colour('sheet') },
        },
      },
    },
    tooltip: {
      root: { background: colour('night'), color: '#ffffff', padding: '5px 9px', maxWidth: '280px', shadow: 'none' },
    },
    stepper: {
      separator: { size: '1px' },
      step: { padding: '0 4px', gap: '8px' },
      stepNumber: { size: '20px', fontSize: '11px', shadow: 'none' },
    },
    breadcrumb: { root: { padding: '0', background: 'transparent', gap: '6px' } },
    datepicker: { panel: { padding: '8px' }, date: { width: '26px', height: '26px', padding: '0' } },
  },
});
