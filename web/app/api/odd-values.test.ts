import { readdirSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { newPiece } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { database } from '@/server/data/db';
import { peopleAlone } from '@/server/fixtures/alone';
import type { Route } from '@/server/http/route';
import { createPiece } from '@/server/pieces/pieces';

// Run by ./maypole test unit, which names a throw-away database in DATABASE_URL.
const METHODS = ['GET', 'POST', 'PUT', 'DELETE'] as const;
const routes: { where: string; method: string; route: Route }[] = [];
let params: Record<string, string>;
let giveBack: () => Promise<void>;
beforeAll(async () => {
  giveBack = await peopleAlone();
  for (const file of readdirSync(import.meta.dirname, { recursive: true, encoding: 'utf8' })) {
    if (!file.endsWith('route.ts')) continue;
    const module = (await import(path.join(import.meta.dirname, file))) as Record<string, Route>;
    for (const method of METHODS)
      if (module[method]) routes.push({ where: path.dirname(file), method, route: module[method] });
  }
  const { id } = await createPiece(database(), writePiece(newPiece('Odd')));
  params = { id, number: '1', index: '0', lease: id, sheet: 'solid', name: 'x', fingerprint: 'a'.repeat(64) };
}, 600_000);
afterAll(() => giveBack());

/** What nobody means, and somebody sends. */
const ODD: readonly unknown[] = [
  null,
  '',
  ' '.repeat(12),
  'a\0b',
  '\ud800',
  'x'.repeat(100_000),
  -1,
  0.5,
  2 ** 31,
  1e12,
  1e99,
  true,
  [],
  [null],
  {},
  { a: { b: 1 } },
  '00000000-0000-4000-8000-000000000000',
];

interface Shape {
  readonly type?: string;
  readonly properties?: Record<string, Shape>;
  readonly required?: readonly string[];
  readonly items?: Shape;
  readonly anyOf?: readonly Shape[];
  readonly oneOf?: readonly Shape[];
  readonly enum?: readonly unknown[];
  readonly const?: unknown;
  readonly format?: string;
  readonly pattern?: string;
  readonly minimum?: number;
  readonly minItems?: number;
  readonly minLength?: number;
}

/** Something that a schema takes, as far as that follows from its shape. */
function sample(shape: Shape, name = ''): unknown {
  const options = shape.anyOf ?? shape.oneOf;
  if (options) return sample(options[0], name);
  if (shape.const !== undefined) return shape.const;
  if (shape.enum) return shape.enum[0];
  switch (shape.type) {
    case 'object':
      return Object.fromEntries(Object.entries(shape.properties ?? {}).map(([key, of]) => [key, sample(of, key)]));
    case 'array':
      return Array.from({ length: shape.minItems ?? 1 }, () => sample(shape.items ?? {}, name));
    case 'integer':
    case 'number':
      return Math.max(1, shape.minimum ?? 1);
    case 'boolean':
      return true;
    case 'null':
      return null;
    default:
      if (name === 'source') return writePiece(newPiece('Sent'));
      if (shape.format === 'uuid') return params.id;
      if (shape.format === 'email') return 'odd@larkhaven.example';
      if (shape.pattern?.includes('0-9a-f')) return 'a'.repeat(64);
      return 'a few words are good';
  }
}

/** The same with one field, at whatever depth, replaced: each field in turn, and the whole. */
function* spoilt(value: unknown, odd: unknown): Generator<unknown> {
  yield odd;
  if (Array.isArray(value)) {
    for (let i = 0; i < Math.min(2, value.length); i++)
      for (const inner of spoilt(value[i], odd)) yield value.map((x, j) => (j === i ? inner : x));
  } else if (typeof value === 'object' && value !== null) {
    for (const [key, x] of Object.entries(value)) for (const inner of spoilt(x, odd)) yield { ...value, [key]: inner };
    yield { ...value, unknown: odd };
  }
}

const call = async (route: Route, method: string, body: unknown, query = '', of: Record<string, string> = params) => {
  const answer = await route(
    new Request(`http://127.0.0.1/api/x${query}`, {
      method,
      headers: { 'content-type': 'application/json' },
      ...(method === 'GET' ? {} : { body: body === undefined ? undefined : JSON.stringify(body) }),
    }),
    { params: Promise.resolve(of) },
  );
  const { status } = answer;
  const text = answer.headers.get('content-type')?.includes('json') ? await answer.text() : '';
  await answer.body?.cancel().catch(() => undefined);
  return { status, text };
};

describe('whatever is sent', () => {
  it('each field of each route with values that nobody means is refused in words, and never a fault of ours', async () => {
    let tried = 0;
    for (const { where, method, route } of routes) {
      if (!route.rules.takes) continue;
      const shape = z.toJSONSchema(route.rules.takes, { unrepresentable: 'any', io: 'input' }) as Shape;
      const whole = sample(shape);
      for (const odd of ODD)
        for (const body of spoilt(whole, odd)) {
          const { status, text } = await call(route, method, body);
          const what = `${method} ${where} ${JSON.stringify(body)?.slice(0, 300)}: ${text.slice(0, 300)}`;
          expect(status, what).toBeLessThan(500);
          // In words of ours, and not of a library.
          expect(text, what).not.toMatch(/Invalid input|expected \w+, received|Too (big|small)|invalid_type/);
          tried++;
        }
    }
    expect(tried).toBeGreaterThan(1000);
  }, 900_000);
  it('addresses and queries with such values, too', async () => {
    const texts = [
      '1e99',
      '-1',
      '2147483648',
      '9007199254740993',
      '0.5',
      'NaN',
      'x'.repeat(5000),
      'a%00b',
      '%ED%A0%80',
      '',
    ];
    const names = ['before', 'limit', 'width', 'bin', 'kind', 'pictures', 'fps', 'name', 'revision', 'look'];
    for (const { where, method, route } of routes)
      for (const text of texts) {
        if (method === 'GET' && /metrics|health/.test(where)) continue;
        const query = `?${names.map((n) => `${n}=${text}`).join('&')}`;
        const odd = Object.fromEntries(
          Object.keys(params).map((k) => [k, decodeURIComponent(text.replace('%ED%A0%80', 'x'))]),
        );
        for (const of of [params, odd]) {
          const body = method === 'GET' ? undefined : {};
          const { status, text: answer } = await call(route, method, body, query, of);
          expect(status, `${method} ${where} ${query.slice(0, 200)}: ${answer}`).toBeLessThan(500);
        }
      }
  }, 900_000);
  it('a route that takes JSON says of what shape', () => {
    // What is left takes files and pictures.
    const silent = routes.filter((r) => (r.route.rules.body || r.route.rules.file) && !r.route.rules.takes);
    expect(silent.map((r) => `${r.method} ${r.where}`).sort()).toMatchInlineSnapshot(`
      [
        "POST assets",
        "POST sheets/movie",
        "PUT pieces/[id]/thumbnail",
        "PUT work/leases/[lease]/sheets/[sheet]",
      ]
    `);
  });
});
