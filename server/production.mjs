import { register } from 'node:module';

/**
 * Node.js knows the router by its development build alone: the package names no other. In
 * production its other one is taken, by whoever asks for it.
 */
const hooks = `export async function resolve(specifier, context, next) {
  const found = await next(specifier, context);
  return { ...found, url: found.url.replace('/react-router/dist/development/', '/react-router/dist/production/') };
}`;
register(`data:text/javascript,${encodeURIComponent(hooks)}`, import.meta.url);
