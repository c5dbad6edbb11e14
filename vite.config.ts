import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { pathsAlone } from './scripts/pathsAlone';

const api = `http://127.0.0.1:${process.env.API_PORT ?? 4311}`;

/** Small modules that the first screen needs, whichever it is. */
const SHARED = [
  ...['core/calendar/', 'core/errors/known', 'core/money/display', 'core/money/readAmount'],
  ...['web/ground/asOf', 'web/ground/company', 'web/ground/person', 'web/ground/useAttempt', 'web/ground/workings/Fig'],
  ...['web/ground/BegunDraft', 'web/ground/OverUnder', 'web/ground/WaitingLine', 'web/kit/choice/Choice.', 'web/kit/typed/'],
  ...['ColumnChoice', 'OnPress', 'Pop.', 'Signs', 'States', 'SureButton', 'displayMoment', 'toast', 'unsaved'].map(
    (it) => `web/kit/${it}`,
  ),
];
const isShared = (id: string) => SHARED.some((it) => id.includes(`/${it}`));

export default defineConfig({
  root: 'web',
  plugins: [react(), tailwindcss(), pathsAlone()],
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    manifest: true,
    chunkSizeWarningLimit: 900,
    // What many pages share comes in one piece: a piece for each would be compressed by itself, and asked for by itself.
    rolldownOptions: { output: { codeSplitting: { groups: [{ name: 'shared', test: isShared, minShareCount: 3 }] } } },
  },
  server: { port: Number(process.env.PORT ?? 4310), proxy: { '/api': api } },
});
