import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

/**
 * How the scripts are cut. The set-up of `zod` runs before anything of the application does; what the first page is painted
 * with is one script; what several chapters need is one more, as a hundred small ones are fetched more slowly.
 */
const SCRIPTS = [
  { name: 'zod', test: /node_modules.zod.|src.zodSetup/, priority: 3 },
  { name: 'first', test: /web.src.start\.tsx/, priority: 2 },
  { name: 'shared', minShareCount: 4, priority: 1 },
];

export default defineConfig({
  plugins: [react(), tailwindcss()],
  resolve: {
    // The plain builds of these use Node's Buffer.
    alias: { 'csv-stringify/sync': 'csv-stringify/browser/esm/sync', 'csv-parse/sync': 'csv-parse/browser/esm/sync' },
  },
  build: { target: 'es2023', assetsInlineLimit: 0, chunkSizeWarningLimit: 1_500, rolldownOptions: { output: { codeSplitting: { groups: SCRIPTS } } } },
  worker: { format: 'es' },
});
