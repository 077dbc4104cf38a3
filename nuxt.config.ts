import { fileURLToPath } from 'node:url';
import { chunkOf } from './tools/chunks';
import { builtPagesModule, pageFiles } from './tools/page-files';
import { primeVue } from './tools/primevue';

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
  modules: ['@pinia/nuxt', primeVue, pageFiles],
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
        imports: [
          'refDebounced',
          'until',
          'useClipboard',
          'useElementSize',
          'useMediaQuery',
          'useLocalStorage',
          'useObjectUrl',
          'useEventListener',
          'useNow',
          'useThrottleFn',
          'useTimeoutFn',
          'watchDebounced',
        ],
      },
      { from: 'primevue/usetoast', imports: ['useToast'] },
      { from: '#core/contract/address', imports: ['addressOf'] },
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
    virtual: { '#built-pages': builtPagesModule },
    errorHandler: folder('./server/error.ts'),
    routeRules: { '/**': { headers: EVERY_ANSWER } },
    esbuild: { options: { target: 'es2022' } },
  },
  vite: { build: { rollupOptions: { output: { manualChunks: chunkOf } } } },
  alias: { '#core': folder('./core') },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
});
