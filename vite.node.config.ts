import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/**
 * The programs that run in Node.js outside the web build: workers, the shell verbs, the database
 * chores.
 */
export default defineConfig({
  define: { 'process.env.NODE_ENV': JSON.stringify('production') },
  resolve: {
    alias: {
      '#core': here('./core'),
      '#app': here('./app'),
      'react-router': here('./node_modules/react-router/dist/production/index.mjs'),
    },
  },
  // Bundled, so that a verb or a chore begins before its libraries have been looked up file by file.
  ssr: { noExternal: true, external: ['argon2', 'pdfkit', 'pg', 'sharp', 'workerpool'] },
  build: {
    ssr: true,
    outDir: 'build/node',
    copyPublicDir: false,
    rollupOptions: {
      input: {
        commands: here('./server/commands/main.ts'),
        worker: here('./server/worker.ts'),
        database: here('./server/database.ts'),
        reckon: here('./cli/reckon.ts'),
        bench: here('./bench/develop.ts'),
        size: here('./bench/size.ts'),
        largeCards: here('./bench/largeCards.ts'),
        flatten: here('./bench/flatten.ts'),
        network: here('./bench/network.ts'),
        pictures: here('./bench/pictures.ts'),
        photographs: here('./bench/photographs.ts'),
        torture: here('./torture/main.ts'),
      },
      output: { entryFileNames: '[name].js' },
    },
  },
});
