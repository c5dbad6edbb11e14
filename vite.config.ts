import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { pathsAlone } from './scripts/pathsAlone';

const api = `http://127.0.0.1:${process.env.API_PORT ?? 4311}`;

export default defineConfig({
  root: 'web',
  plugins: [react(), tailwindcss(), pathsAlone()],
  build: { outDir: '../dist/web', emptyOutDir: true, manifest: true, chunkSizeWarningLimit: 900 },
  server: { port: Number(process.env.PORT ?? 4310), proxy: { '/api': api } },
});
