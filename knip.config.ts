import type { KnipConfig } from 'knip';

/** What `knip` may not call dead, each with its reason. Everything else that nothing uses is deleted. */
const config: KnipConfig = {
  entry: [
    // Processes that tools/build.ts bundles and the start command, the press or the bench start by file name.
    'server/{db/migrate-main,demo/history-main,jobs/main,press/alone,press/worker}.ts',
    'standins/crm/main.ts',
    'standins/storage/main.ts',
    // Named in nuxt.config.ts by its path.
    'server/error.ts',
    'tools/bench/{figures-speed,setting,long,memory}.ts',
    'tools/*.{ts,mjs}',
    'core/**/*.test.ts',
  ],
  project: ['{app,core,render,server,standins,demo,tools,tests,e2e}/**/*.{ts,vue,mjs}'],
  // All the grammar's terms, written by its generator.
  ignore: ['core/formula/formula.parser.terms.ts'],
  // Fonts are copied from their packages by name or imported by style sheets, and no module imports them.
  ignoreDependencies: [/^@expo-google-fonts\//, /^@fontsource\//],
  // Made while the app is built, by tools/page-files.ts.
  ignoreUnresolved: ['#built-pages'],
  // Programs of Debian's packages, which ./start and ./test install.
  ignoreBinaries: ['qpdf', 'pdffonts', 'pdfinfo', 'pdftotext', 'pdftoppm', 'diff', 'soffice'],
  // A type that a signature of the same file names may be exported for whoever wants to name it too.
  ignoreExportsUsedInFile: { interface: true, type: true },
};

export default config;
