import { fileURLToPath } from 'node:url';
import { reactRouter } from '@react-router/dev/vite';
import { defineConfig } from 'vite';
import { compression } from 'vite-plugin-compression2';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  // Compressed once, here, as small as it goes; the server sends these as they are.
  plugins: [
    reactRouter(),
    compression({
      include: /\.(js|css|svg)$/,
      algorithms: ['brotliCompress', 'gzip'],
      threshold: 600,
    }),
  ],
  resolve: { alias: { '#core': here('./core'), '#app': here('./app') } },
  environments: {
    client: {
      build: {
        rolldownOptions: {
          output: {
            // What most pages share goes in one file: many small ones compress worse and each costs
            // a request.
            // Checks of what comes in are the server's; a page that has some fetches them apart.
            codeSplitting: {
              groups: [
                { name: 'checks', test: /node_modules\/zod\//, priority: 2, minSize: 0 },
                { name: 'shared', priority: 1, minShareCount: 5, minSize: 0 },
              ],
            },
          },
        },
      },
    },
  },
  build: { chunkSizeWarningLimit: 900 },
});
