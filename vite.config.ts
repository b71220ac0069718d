import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { reactRouter } from '@react-router/dev/vite';
import { defineConfig } from 'vite';
import type { Plugin } from 'vite';
import { compression } from 'vite-plugin-compression2';

const forBrowsers = ({ name }: { name: string }) => name === 'client';

/** The service worker, at the root under its own name, with the build that it belongs to. */
const serviceWorker = (): Plugin => ({
  name: 'patrone-service-worker',
  applyToEnvironment: forBrowsers,
  generateBundle(_options, bundle) {
    const build = createHash('sha1').update(Object.keys(bundle).sort().join()).digest('hex');
    const source = readFileSync(here('./app/frame/keptOffline.sw.js'), 'utf8');
    this.emitFile({
      type: 'asset',
      fileName: 'sw.js',
      source: source.replace('__BUILD__', build.slice(0, 12)),
    });
  },
});

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  // Compressed once, here, as small as it goes; the server sends these as they are.
  plugins: [
    reactRouter(),
    serviceWorker(),
    {
      ...compression({
        include: /\.(js|css|svg)$/,
        algorithms: ['brotliCompress', 'gzip'],
        threshold: 600,
      }),
      applyToEnvironment: forBrowsers,
    },
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
