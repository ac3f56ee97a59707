import { defineConfig } from 'drizzle-kit';

export default defineConfig({
  dialect: 'postgresql',
  schema: ['./server/data/schema.ts', './server/people/tables.ts', './server/render/tables.ts'],
  out: './server/migrations',
});
