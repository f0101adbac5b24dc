import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

/** Names all that was built in one file beside the page, so that the page can have it at hand before the server goes. */
const listParts: Plugin = {
  name: 'list-parts',
  apply: 'build',
  generateBundle(_options, bundle) {
    const parts = Object.keys(bundle).filter((name) => name.startsWith('assets/'));
    this.emitFile({ type: 'asset', fileName: 'parts.json', source: JSON.stringify(parts) });
  },
};

export default defineConfig({
  plugins: [react(), listParts],
  build: { target: 'es2022', sourcemap: false, chunkSizeWarningLimit: 900 },
  worker: { format: 'es' },
  server: {
    host: '127.0.0.1',
    proxy: { '/api': { target: process.env.ZB_API ?? 'http://127.0.0.1:4180', changeOrigin: false } },
  },
});
