import PrimeVue from 'primevue/config';
import ToastService from 'primevue/toastservice';

/** PrimeVue without styles of its own: they come as a file, made when Lumbix is built. */
export default defineNuxtPlugin(({ vueApp }) => {
  vueApp.use(PrimeVue, { theme: 'none', ripple: false, pt: { select: { pcFilter: { root: MARKS_FIRST_OPTION } } } });
  vueApp.use(ToastService);
});
