import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

/** The two faces that every sheet is set in are fetched at once: without them a sheet would be laid out twice. */
const facesAtOnce: Plugin = {
  name: 'faces-at-once',
  transformIndexHtml: {
    order: 'post',
    handler: (_, { bundle }) =>
      Object.keys(bundle ?? {})
        .filter((file) => /-latin-wght-normal-[^/]*\.woff2$/.test(file))
        .map((file) => ({
          tag: 'link',
          attrs: { rel: 'preload', as: 'font', type: 'font/woff2', href: `/${file}`, crossorigin: true },
          injectTo: 'head' as const,
        })),
  },
};

export default defineConfig({
  plugins: [
    react(),
    facesAtOnce,
    VitePWA({
      // A newer version is told, and taken when somebody says so or the page is opened anew.
      registerType: 'prompt',
      injectRegister: false,
      includeAssets: ['mark.svg', 'theme.js'],
      manifest: {
        name: 'Zealous Box',
        short_name: 'Zealous Box',
        description: 'A workbench for people who turn spare machines into single-purpose ones.',
        start_url: '/',
        display: 'standalone',
        background_color: '#e4e0d6',
        theme_color: '#e4e0d6',
        icons: [
          { src: '/mark.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' },
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'any maskable' },
        ],
      },
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,png,woff2,wasm}'],
        maximumFileSizeToCacheInBytes: 8 * 1024 * 1024,
        // The page that brought it is served by it from then on.
        clientsClaim: true,
        importScripts: ['/notified.js'],
        navigateFallback: '/index.html',
        // The stand-ins answer for themselves; without a server they are gone, and the page says so.
        navigateFallbackDenylist: [/^\/api\//, /^\/third-party-notices\.txt$/],
      },
    }),
  ],
  build: { target: 'es2022', sourcemap: false, chunkSizeWarningLimit: 900 },
  worker: { format: 'es' },
  server: {
    host: '127.0.0.1',
    proxy: { '/api': { target: process.env.ZB_API ?? 'http://127.0.0.1:4180', changeOrigin: false } },
  },
});
