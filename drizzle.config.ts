import { defineConfig } from 'drizzle-kit';

export default defineConfig({
  dialect: 'postgresql',
  schema: ['./app/records/schema.server.ts', './app/records/peopleTables.server.ts'],
  out: './app/records/migrations',
});
