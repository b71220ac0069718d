import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/**
 * The server with the pages that `react-router build` has made, in one file: libraries of many small
 * files, looked up one by one, would be most of the time that it takes to start. What has parts in
 * other languages or reads files of its own stays where it is.
 */
export default defineConfig({
  define: { 'process.env.NODE_ENV': JSON.stringify('production') },
  logLevel: 'error',
  resolve: {
    alias: {
      '#core': here('./core'),
      '#app': here('./app'),
      'virtual:react-router/server-build': here('./build/server/index.js'),
      // Node.js would take its development build: the package names no other.
      'react-router': here('./node_modules/react-router/dist/production/index.mjs'),
    },
  },
  ssr: { noExternal: true, external: ['argon2', 'pg', 'pino', 'sharp', 'workerpool'] },
  build: {
    ssr: here('./server/main.ts'),
    outDir: 'build/program',
    copyPublicDir: false,
    rollupOptions: { output: { entryFileNames: 'server.js' } },
  },
});
