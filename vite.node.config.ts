import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/**
 * The programs that run in Node.js outside the web build: the server, the shell verbs, the database
 * chores.
 */
export default defineConfig({
  resolve: { alias: { '#core': here('./core'), '#app': here('./app') } },
  // Bundled, so that a shell verb answers before its libraries have been looked up file by file.
  ssr: { noExternal: ['zod'] },
  build: {
    ssr: true,
    outDir: 'build/node',
    copyPublicDir: false,
    rollupOptions: {
      input: {
        worker: here('./server/worker.ts'),
        server: here('./server/main.ts'),
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
