import pg from 'pg';
import { describe, expect, it } from 'vitest';
import { databaseTrouble } from './database-trouble';
import { route } from './route';

const withCode = (code: string, words = 'x') => Object.assign(new Error(words), { code });

describe('a database that cannot do what was asked', () => {
  it.each(['ECONNREFUSED', 'ECONNRESET', '57P01', '57P03', '08006', '53300'])('is away by %s', (code) => {
    expect(databaseTrouble(withCode(code))?.status).toBe(503);
    // As the layer over the driver wraps it.
    expect(databaseTrouble(new Error('Failed query', { cause: withCode(code) }))?.status).toBe(503);
    expect(databaseTrouble(new AggregateError([withCode(code)]))?.status).toBe(503);
  });
  it('is away where a connection was cut, which has no code', () => {
    expect(databaseTrouble(new Error('Connection terminated unexpectedly'))?.status).toBe(503);
  });
  it.each(['53100', 'ENOSPC'])('has no room by %s', (code) => {
    const trouble = databaseTrouble(new Error('Failed query', { cause: withCode(code) }));
    expect(trouble).toMatchObject({ status: 507 });
    expect(trouble!.words).toContain('disk');
  });
  it('is not what a fault of ours is told as', () => {
    expect(databaseTrouble(new TypeError('x is not a function'))).toBeUndefined();
    expect(databaseTrouble(withCode('23505', 'duplicate key'))).toBeUndefined();
    expect(databaseTrouble('text')).toBeUndefined();
  });
  it('is answered with when to try again', async () => {
    const client = new pg.Client({ host: '127.0.0.1', port: 1, connectionTimeoutMillis: 2000 });
    const answer = await route({ who: 'anyone' }, async () => {
      await client.connect();
      return new Response();
    })(new Request('http://127.0.0.1/'));
    expect(answer.status).toBe(503);
    expect(answer.headers.get('retry-after')).toBe('2');
    expect(((await answer.json()) as { error: string }).error).toContain('being started again');
  });
});
