import { definePreset } from '@primeuix/themes';
import autocomplete from '@primeuix/themes/aura/autocomplete';
import base from '@primeuix/themes/aura/base';
import badge from '@primeuix/themes/aura/badge';
import button from '@primeuix/themes/aura/button';
import checkbox from '@primeuix/themes/aura/checkbox';
import chip from '@primeuix/themes/aura/chip';
import datatable from '@primeuix/themes/aura/datatable';
import dialog from '@primeuix/themes/aura/dialog';
import iconfield from '@primeuix/themes/aura/iconfield';
import inputtext from '@primeuix/themes/aura/inputtext';
import menu from '@primeuix/themes/aura/menu';
import multiselect from '@primeuix/themes/aura/multiselect';
import paginator from '@primeuix/themes/aura/paginator';
import ripple from '@primeuix/themes/aura/ripple';
import select from '@primeuix/themes/aura/select';
import skeleton from '@primeuix/themes/aura/skeleton';
import toast from '@primeuix/themes/aura/toast';
import virtualscroller from '@primeuix/themes/aura/virtualscroller';

/** The colours of Lumbix. Names say what they are for; see the look in docs/. */
const verdigris = {
  50: '#edf5f5', 100: '#d6e8e8', 200: '#aed1d2', 300: '#7fb4b6', 400: '#4c9194', 500: '#1f6d70',
  600: '#1b6063', 700: '#175153', 800: '#124042', 900: '#0e3234', 950: '#0b2b2d',
}; // prettier-ignore
const stone = {
  0: '#ffffff', 50: '#f6f7f4', 100: '#e9ece6', 200: '#dee2da', 300: '#d3d8cf', 400: '#9aa5a1',
  500: '#66726f', 600: '#4b585a', 700: '#35423f', 800: '#243235', 900: '#1c2629', 950: '#141c1e',
}; // prettier-ignore

/** The tokens of what is used; those of all other components would only be loaded. */
const used = {
  ...base,
  components: {
    autocomplete,
    badge,
    button,
    checkbox,
    chip,
    datatable,
    dialog,
    iconfield,
    inputtext,
    menu,
    multiselect,
    paginator,
    ripple,
    select,
    skeleton,
    toast,
    virtualscroller,
  },
};

/** PrimeVue in Lumbix's look: square-cornered, quiet, one dark button. */
export const preset = definePreset(used, {
  primitive: { borderRadius: { none: '0', xs: '2px', sm: '3px', md: '3px', lg: '3px', xl: '3px' } },
  semantic: {
    primary: verdigris,
    transitionDuration: '120ms',
    focusRing: { width: '2px', style: 'solid', color: '#1f6d70', offset: '1px' },
    formField: { paddingX: '10px', paddingY: '5px', borderRadius: '3px' },
    colorScheme: {
      light: {
        surface: stone,
        primary: { color: '#1c2629', contrastColor: '#ffffff', hoverColor: '#2b383b', activeColor: '#35423f' },
        highlight: { background: '#e2efef', focusBackground: '#d6e8e8', color: '#1c2629', focusColor: '#1c2629' },
        text: { color: '#1c2629', mutedColor: '#4b585a' },
        formField: {
          borderColor: '#d3d8cf',
          hoverBorderColor: '#9aa5a1',
          focusBorderColor: '#1f6d70',
          placeholderColor: '#66726f',
          shadow: 'none',
        },
      },
    },
  },
  components: {
    datatable: {
      headerCell: { padding: '8px 10px', background: '#ffffff', color: '#4b585a', borderColor: '#d3d8cf' },
      bodyCell: { padding: '8px 10px', borderColor: '#e8ebe5' },
      columnTitle: { fontWeight: '500' },
    },
    button: { root: { paddingX: '12px', paddingY: '6px', label: { fontWeight: '500' } } },
    dialog: { root: { shadow: '0 8px 32px #1c262933' } },
  },
});
