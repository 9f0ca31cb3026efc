import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    VitePWA({
      registerType: 'prompt',
      injectRegister: false,
      manifest: {
        name: 'Inventario',
        short_name: 'Inventario',
        display: 'standalone',
        background_color: '#14181c',
        theme_color: '#14181c',
        icons: [{ src: '/mark.svg', sizes: 'any', type: 'image/svg+xml' }],
      },
      // The page that brought the worker is served by it at once: the first visit is enough to go on without
      // the server. A newer worker waits until it is asked in: no page is reloaded by itself.
      workbox: {
        clientsClaim: true,
        skipWaiting: false,
        globPatterns: ['**/*.{js,css,html,svg,woff2}'],
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api(\/|$)/, /\.[a-z0-9]+$/i],
      },
    }),
  ],
  worker: { format: 'es' },
  build: { target: 'es2022', sourcemap: false },
  server: { proxy: { '/api': 'http://127.0.0.1:4180' } },
});
