import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  // What was kept by another build is not read: its answers may have had another shape.
  define: { __BUILD__: JSON.stringify(Date.now().toString(36)) },
  build: { target: 'es2023', chunkSizeWarningLimit: 900 },
  server: { proxy: { '/api': 'http://127.0.0.1:4880' } },
});
