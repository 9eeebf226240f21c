import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { version } from './package.json';

export default defineConfig({
  plugins: [react()],
  // What was kept by another build is not read: its answers may have had another shape.
  define: {
    __BUILD__: JSON.stringify(Date.now().toString(36)),
    __VERSION__: JSON.stringify(version),
  },
  // The licences of the packages in the page go with it.
  build: { target: 'es2023', chunkSizeWarningLimit: 900, license: { fileName: 'licences.txt' } },
  // The host stays that of the page: the application refuses changes that come from another one.
  server: { proxy: { '/api': { target: 'http://127.0.0.1:4880', changeOrigin: false } } },
});
