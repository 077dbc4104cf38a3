import { fileURLToPath } from 'node:url';
import { preset } from './app/theme';

const folder = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export default defineNuxtConfig({
  compatibilityDate: '2026-01-01',
  ssr: false,
  telemetry: false,
  devtools: { enabled: false },
  modules: ['@pinia/nuxt', '@primevue/nuxt-module'],
  primevue: {
    options: { theme: { preset, options: { darkModeSelector: '.never', cssLayer: false } }, ripple: false },
    autoImport: true,
  },
  css: ['~/assets/fonts.css', '~/assets/main.css'],
  app: {
    head: {
      title: 'Lumbix',
      htmlAttrs: { lang: 'en' },
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/icon.svg' }],
    },
  },
  imports: {
    presets: [
      { from: '@vueuse/core', imports: ['refDebounced', 'useElementSize', 'useEventListener', 'watchDebounced'] },
    ],
  },
  components: [{ path: '~/components', pathPrefix: false }],
  nitro: {
    externals: { inline: ['primevue', '@primevue', '@primeuix'] },
    esbuild: { options: { target: 'es2022' } },
  },
  alias: { '#core': folder('./core') },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
});
