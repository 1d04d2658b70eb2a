import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    VitePWA({
      registerType: 'autoUpdate',
      injectRegister: false,
      manifest: {
        name: 'Zabrik',
        short_name: 'Zabrik',
        description: 'Every gram that comes through the door is accounted for.',
        start_url: '/',
        display: 'standalone',
        orientation: 'any',
        theme_color: '#0F3B3A',
        background_color: '#E6EBEA',
        icons: [{ src: '/icon.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }],
      },
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,woff2}'],
        globIgnores: ['**/*vietnamese*', '**/*cyrillic*', '**/*greek*'],
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//],
        clientsClaim: true,
        skipWaiting: true,
      },
    }),
  ],
  worker: { format: 'es' },
  build: { target: 'es2023', sourcemap: true, chunkSizeWarningLimit: 600 },
  server: { host: '127.0.0.1', proxy: { '/api': { target: process.env['API'] ?? 'http://127.0.0.1:4180' } } },
});
