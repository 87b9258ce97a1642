import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { type Plugin, defineConfig } from 'vite';

/**
 * The scripts in few files, in the order in which they are needed: what parts share is in the file of the first of them, so what signing in
 * shares with the rest is named for the base. Left
 * alone the build makes a file for every set of parts that share something, 140 in all, and a browser asks for each.
 */
const SCRIPTS = [
  { name: 'base', test: /\/(web\/main\.tsx|web\/ui\/(field|wordmark)\.tsx|contract\/problems\.ts)$/ },
  { name: 'entry', test: /\/web\/pages\/(sign-in|join|new-password|first-account)-page\.tsx$/ },
  { name: 'workbench', test: /\/web\/workbench\/workbench-page\.tsx$/ },
  { name: 'sites', test: /\/web\/pages\/sites-page\.tsx$/ },
  {
    name: 'beside',
    test: /\/web\/(lenses\/(lens-panel|(access|menus|plan|publish|checks)\/[a-z-]+-(panel|fields|timeline))|past\/history-panel)\.tsx$/,
  },
  { name: 'writing', test: /\/web\/lenses\/write\/(write-panel|desk)\.tsx$/ },
  { name: 'views', test: /\/web\/(map\/page-map|workbench\/split-view|lenses\/plan\/[a-z-]+\/[a-z-]+-view)\.tsx$/ },
  { name: 'dialogs', test: /\/web\/workbench\/dialogs\/[a-z-]+-dialog\.tsx$/ },
  { name: 'settings', test: /\/web\/settings\/(settings-sheet\.tsx|all-settings\.ts)$/ },
];

/** Has the browser fetch the workbench's scripts with the first one, which would ask for them only once it runs. */
const workbenchAhead: Plugin = {
  name: 'workbench-ahead',
  transformIndexHtml: {
    order: 'post',
    handler: (_, { bundle = {} }) =>
      Object.values(bundle)
        .filter((file) => file.type === 'chunk' && file.name === 'workbench')
        .map(({ fileName }) => ({
          tag: 'link',
          attrs: { rel: 'modulepreload', crossorigin: true, href: `/${fileName}` },
          injectTo: 'head',
        })),
  },
};

export default defineConfig({
  root: 'web',
  plugins: [react(), tailwindcss(), workbenchAhead],
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    target: 'es2023',
    sourcemap: false,
    manifest: true,
    chunkSizeWarningLimit: 1500,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: SCRIPTS.map((script, at) => ({ ...script, priority: SCRIPTS.length - at })),
        },
      },
    },
  },
  server: { port: 5173, proxy: { '/api': { target: 'http://127.0.0.1:4400' } } },
});
