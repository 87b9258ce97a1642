import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  root: 'web',
  plugins: [react(), tailwindcss()],
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    target: 'es2023',
    sourcemap: false,
    manifest: true,
    chunkSizeWarningLimit: 1500,
  },
  server: { port: 5173, proxy: { '/api': { target: 'http://127.0.0.1:4400' } } },
});
