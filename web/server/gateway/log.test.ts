import { sql } from 'drizzle-orm';
import { connect } from '../data/db';
import { afterAll, describe, expect, it } from 'vitest';
import { withoutValues } from './log';

// The test command starts a throw-away database and names it here.
const db = connect(process.env.DATABASE_URL ?? 'postgresql://127.0.0.1:1/none');
afterAll(() => db.$client.end());

describe('the log', () => {
  it('has no values of a query that failed, whatever they are', async () => {
    const secret = 'my document\nwith lines\n    and “blanks”';
    const error = await db.execute(sql`select ${secret}::text, ${42}::int from nowhere_at_all`).catch((e: Error) => e);
    const stack = (error as Error).stack!;
    expect(stack).toContain('my document');
    const { error: told } = withoutValues({ request: 'a-1', error: stack }) as { error: string };
    expect(told).toContain('nowhere_at_all');
    expect(told).toContain('params: left out');
    expect(told).toMatch(/\n {4}at /);
    for (const word of ['my document', 'with lines']) expect(told).not.toContain(word);
  });
  it('leaves other lines as they are', () => {
    const line = { path: '/api/pieces', ms: 3, error: 'Something: params of a request' };
    expect(withoutValues(line)).toEqual(line);
  });
});
