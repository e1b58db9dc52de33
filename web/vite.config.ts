import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react(), tailwindcss()],
  resolve: {
    // The plain builds of these use Node's Buffer.
    alias: { 'csv-stringify/sync': 'csv-stringify/browser/esm/sync', 'csv-parse/sync': 'csv-parse/browser/esm/sync' },
  },
  build: { target: 'es2023', assetsInlineLimit: 0, chunkSizeWarningLimit: 900 },
  worker: { format: 'es' },
});
