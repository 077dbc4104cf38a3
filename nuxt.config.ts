import { fileURLToPath } from 'node:url';
import { preset } from './app/theme';

const folder = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/** Headers of every answer, files too. The policy of pages is in server/edge/page-policy.ts. */
const EVERY_ANSWER = {
  'X-Content-Type-Options': 'nosniff',
  'X-Frame-Options': 'DENY',
  'Referrer-Policy': 'same-origin',
  'Permissions-Policy': 'camera=(), geolocation=(), microphone=(), payment=(), usb=()',
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Resource-Policy': 'same-origin',
};

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
      {
        from: '@vueuse/core',
        imports: ['refDebounced', 'useElementSize', 'useEventListener', 'useNow', 'watchDebounced'],
      },
    ],
  },
  components: [{ path: '~/components', pathPrefix: false }],
  nitro: {
    errorHandler: folder('./server/error.ts'),
    routeRules: { '/**': { headers: EVERY_ANSWER } },
    externals: { inline: ['primevue', '@primevue', '@primeuix'] },
    esbuild: { options: { target: 'es2022' } },
  },
  alias: { '#core': folder('./core') },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
});
