import http from 'node:http';
import { Installation } from './installation';
import { percentile, type Trial } from './trial';
import { randomSource } from '@maypole/core/maths/random';

const ID = '00000000-0000-4000-8000-000000000000';
const PATHS = [
  '/',
  '/piece/x',
  `/piece/${ID}`,
  '/check',
  '/notices',
  '/enter',
  '/people',
  '/nothing/here',
  '/api/health',
  '/api/metrics',
  '/api/pieces',
  '/api/pieces?bin=1',
  `/api/pieces/${ID}`,
  '/api/pieces/..%2f..%2fetc',
  `/api/pieces/${ID}/file`,
  `/api/pieces/${ID}/seam`,
  `/api/pieces/${ID}/duplicate`,
  `/api/pieces/${ID}/thumbnail`,
  `/api/pieces/${ID}/thumbnail?revision=2147483648`,
  `/api/pieces/${ID}/thumbnail?revision=1`,
  `/api/pieces/${ID}/revisions`,
  `/api/pieces/${ID}/revisions/99999999999`,
  `/api/pieces/${ID}/revisions/-1`,
  `/api/pieces/${ID}/restore`,
  '/api/assets',
  '/api/assets?name=x.obj',
  '/api/assets?name=%00',
  `/api/assets?name=${'n'.repeat(5000)}.obj`,
  `/api/assets/${'a'.repeat(64)}`,
  '/api/assets/zz',
  '/api/looks',
  '/api/looks?kind=finish',
  '/api/looks?kind=constructor',
  `/api/looks/${ID}`,
  '/api/enter',
  '/api/people',
  '/api/people/accept',
  '/api/people/invites',
  `/api/people/invites/${ID}`,
  '/api/people/keys',
  `/api/people/keys/${ID}`,
  '/api/people/trail',
  '/api/people/trail?before=9e99',
  '/api/people/abcdefgh',
  '/%zz',
  '/a%00b',
  '/_next/../../package.json',
  '/_next/static/..%2f..%2f..%2fpackage.json',
  `/${'x'.repeat(9000)}`,
];
const METHODS = ['GET', 'HEAD', 'POST', 'PUT', 'DELETE', 'PATCH', 'OPTIONS', 'TRACE', 'PROPFIND'];
const HOSTS = [undefined, 'evil.example', '127.0.0.1.evil.example', '[::1]:1', 'localhost'];
const ORIGINS = [undefined, undefined, 'http://evil.example', 'null', 'nonsense'];
const deep = (n: number) => `${'{"a":'.repeat(n)}1${'}'.repeat(n)}`;
const BODIES: readonly (readonly [string, string | Buffer | undefined])[] = [
  ['none', undefined],
  ['empty', ''],
  ['null', 'null'],
  ['a list', '[]'],
  ['deep', deep(5000)],
  ['deep in source', JSON.stringify({ source: deep(5000), basedOn: 1 })],
  ['a zero', JSON.stringify({ source: '{"maypole":"piece\u0000"}', basedOn: 1 })],
  ['large numbers', '{"source":"{}","basedOn":99999999999999999999,"revision":1e400,"gaps":2147483648}'],
  ['inherited', '{"__proto__":{"source":"{}"},"constructor":1,"kind":"toString","source":"{}"}'],
  [
    'a mark of byte order',
    Buffer.concat([Buffer.from([0xef, 0xbb, 0xbf]), Buffer.from('{"source":"{}","basedOn":1}')]),
  ],
  ['no UTF-8', Buffer.from([0xff, 0xfe, 0x22, 0xc3, 0x28])],
  ['half a surrogate', '{"source":"\\ud800","basedOn":1}'],
  ['a megabyte of nothing', Buffer.alloc(1024 * 1024)],
  ['a picture that is none', Buffer.concat([Buffer.from('RIFF'), Buffer.alloc(4), Buffer.from('WEBP')])],
];

interface Answer {
  readonly status: number;
  readonly type: string;
  readonly body: string;
}

function ask(
  base: URL,
  method: string,
  path: string,
  headers: Record<string, string>,
  body: string | Buffer | undefined,
): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const request = http.request(
      { host: base.hostname, port: base.port, method, path, headers, agent: false, timeout: 20_000 },
      (response) => {
        let text = '';
        response.on('data', (d: Buffer) => (text += d.toString()));
        response.on('end', () =>
          resolve({ status: response.statusCode!, type: response.headers['content-type'] ?? '', body: text }),
        );
        response.on('error', reject);
      },
    );
    request.on('timeout', () => request.destroy(new Error('no answer within 20 s')));
    request.on('error', reject);
    request.end(body);
  });
}

interface Asked {
  readonly method: string;
  readonly path: string;
  readonly host: string | undefined;
  readonly origin: string | undefined;
}

/** What is wrong with an answer, as the end of a sentence. */
function faultsOf({ status, type, body }: Answer, { method, path, host, origin }: Asked): string[] {
  const wrong: string[] = [];
  if (status >= 500) wrong.push(`was answered ${status}: ${body.slice(0, 200)}`);
  if (status < 400) {
    if (host !== undefined && host !== '[::1]:1' && host !== 'localhost') wrong.push('was let in by a foreign name');
    if (origin !== undefined && ['POST', 'PUT', 'DELETE'].includes(method))
      wrong.push('was let in from a foreign origin');
    return wrong;
  }
  if (/at .*\.(ts|js|mjs):\d+/.test(body)) wrong.push('shows a stack');
  const sentence = type.includes('json') || method === 'HEAD' || status === 405 || !path.startsWith('/api/');
  if (!sentence) wrong.push(`was refused (${status}) without a sentence, as ${type}`);
  return wrong;
}

/** Whatever is asked is answered, in a sentence where it is refused, and never as a fault of ours. */
export const requests: Trial = {
  help: 'whatever is asked of whatever address is answered, and never as a fault',
  short: 1200,
  full: 20_000,
  async run(times, seed, _tell, address) {
    const random = randomSource(seed);
    const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)];
    const maypole = address ? undefined : new Installation();
    const wrong: string[] = [];
    const took: number[] = [];
    const statuses: Record<number, number> = {};
    try {
      await maypole?.start();
      const base = new URL(address ?? maypole!.address);
      for (let i = 0; i < times; i++) {
        // Every address with every method first, then whatever chance gives.
        const inOrder = i < PATHS.length * METHODS.length;
        const path = inOrder ? PATHS[i % PATHS.length] : pick(PATHS);
        const method = inOrder ? METHODS[Math.floor(i / PATHS.length)] : pick(METHODS);
        const host = inOrder ? undefined : pick(HOSTS);
        const origin = inOrder ? undefined : pick(ORIGINS);
        const [named, body] = inOrder ? BODIES[0] : pick(BODIES);
        const headers: Record<string, string> = {
          ...(host === undefined ? {} : { Host: host }),
          ...(origin === undefined ? {} : { Origin: origin }),
          ...(body === undefined ? {} : { 'Content-Length': `${Buffer.byteLength(body)}` }),
          ...(random() < 0.1 ? { 'x-middleware-subrequest': 'middleware', 'x-maypole-client': '1.2.3.4' } : {}),
        };
        const what = `${method} ${path.slice(0, 60)} (host ${host ?? 'own'}, origin ${origin ?? 'none'}, body ${named})`;
        const began = performance.now();
        try {
          const {
            status,
            type,
            body: text,
          } = await ask(base, method, path, headers, method === 'TRACE' ? undefined : body);
          statuses[status] = (statuses[status] ?? 0) + 1;
          for (const fault of faultsOf({ status, type, body: text }, { method, path, host, origin }))
            wrong.push(`${what} ${fault}`);
        } catch (error) {
          wrong.push(`${what}: ${(error as Error).message}`);
        }
        took.push(performance.now() - began);
      }
      if ((await fetch(new URL('/api/health', base))).status !== 200) wrong.push('it does not answer any more');
    } finally {
      maypole?.stop();
    }
    const words = Object.entries(statuses).map(([s, n]) => `${s}: ${n}`);
    return {
      figures: { requests: times, answers: words.join(', '), 'p99 ms': Math.round(percentile(took, 0.99)) },
      wrong,
    };
  },
};
