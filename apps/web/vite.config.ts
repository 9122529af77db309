import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  server: { proxy: { '/api': 'http://127.0.0.1:4600' } },
  build: {
    chunkSizeWarningLimit: 1500,
    // Fonts stay files: the content policy allows none inside a style sheet.
    assetsInlineLimit: 0,
  },
});
