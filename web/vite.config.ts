import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  // Files, not data URLs: the server's policy lets styles and fonts come from files only.
  build: { assetsInlineLimit: 0 },
});
