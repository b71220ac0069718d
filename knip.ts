/** What nobody imports is found by `npm run unused`, part of the lint. Routes are known by themselves. */
export default {
  entry: [
    'app/frame/keptOffline.sw.js',
    'app/**/*.worker.ts',
    'server/{main,worker,database}.ts',
    'server/commands/main.ts',
    'cli/reckon.ts',
    'bench/*.ts',
    'torture/main.ts',
    'e2e/{pageBench,shots}.ts',
  ],
  project: ['{app,core,cli,server,demo,bench,torture,e2e}/**/*.{ts,tsx}'],
  // The framework looks for it by name.
  ignoreDependencies: ['@react-router/node'],
  // What a public function takes and gives may be named by whoever calls it.
  rules: { types: 'off' },
};
