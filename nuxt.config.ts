import { fileURLToPath } from 'node:url';
import { addComponent } from 'nuxt/kit';

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

/** What pages use of PrimeVue, by its tags; each is loaded with the pages that have it. */
function componentsOfPrimeVue(): void {
  for (const name of [
    'AutoComplete',
    'Button',
    'Checkbox',
    'Column',
    'DataTable',
    'Dialog',
    'Menu',
    'MultiSelect',
    'Select',
    'Skeleton',
    'Toast',
  ])
    addComponent({ name, export: 'default', filePath: `primevue/${name.toLowerCase()}` });
}

export default defineNuxtConfig({
  compatibilityDate: '2026-01-01',
  ssr: false,
  telemetry: false,
  devtools: { enabled: false },
  modules: ['@pinia/nuxt', componentsOfPrimeVue],
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
      { from: 'primevue/usetoast', imports: ['useToast'] },
    ],
  },
  components: [{ path: '~/components', pathPrefix: false }],
  experimental: { defaults: { nuxtLink: { prefetch: false } } },
  hooks: {
    // What a page needs is loaded when it is opened: a page that nobody opens costs nothing.
    'build:manifest': (manifest) => {
      for (const resource of Object.values(manifest)) {
        resource.prefetch = false;
        resource.dynamicImports = [];
      }
    },
  },
  nitro: {
    compressPublicAssets: { brotli: true, gzip: true },
    errorHandler: folder('./server/error.ts'),
    routeRules: { '/**': { headers: EVERY_ANSWER } },
    esbuild: { options: { target: 'es2022' } },
  },
  alias: { '#core': folder('./core') },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
});
