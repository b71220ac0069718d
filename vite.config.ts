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
            codeSplitting: { groups: [{ name: 'shared', minShareCount: 5, minSize: 0 }] },
          },
        },
      },
    },
  },
  build: { chunkSizeWarningLimit: 900 },
});
