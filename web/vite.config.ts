import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { compression } from 'vite-plugin-compression2';

export default defineConfig({
  // Packed once, here: the server hands out what there is.
  plugins: [
    react(),
    compression({ algorithms: ['gzip'], include: [/\.(html|js|css|svg)$/], threshold: 0 }),
  ],
  // Files, not data URLs: the server's policy lets styles and fonts come from files only.
  build: { assetsInlineLimit: 0 },
});
