import PrimeVue from 'primevue/config';
import ToastService from 'primevue/toastservice';
import { preset } from '~/theme';

/** PrimeVue in Lumbix's look. Each component brings its own styles when it is shown first. */
export default defineNuxtPlugin(({ vueApp }) => {
  const theme = { preset, options: { darkModeSelector: '.never', cssLayer: false } };
  vueApp.use(PrimeVue, { theme, ripple: false });
  vueApp.use(ToastService);
});
