import net from 'node:net';
import { writePiece } from '@maypole/core/piece/read';
import { expect, test } from './test';
import { smallPiece } from './helpers';

/** Where the application of this lane is. */
const address = () => new URL(test.info().project.use.baseURL!);

/** Sends a request as it stands, letter for letter, and gives the status and the body. */
function raw(method: string, path: string, body: string | Buffer = '', headers: readonly string[] = []) {
  const bytes = Buffer.from(body);
  return new Promise<{ status: number; text: string }>((resolve, reject) => {
    const socket = net.connect(Number(address().port), address().hostname);
    const parts: Buffer[] = [];
    socket.setTimeout(20_000, () => socket.destroy(new Error(`${method} ${path.slice(0, 80)} was not answered.`)));
    socket.on('data', (d) => parts.push(d));
    socket.on('error', reject);
    socket.on('close', () => {
      const all = Buffer.concat(parts).toString('utf8');
      resolve({ status: Number(/^HTTP\/1\.1 (\d+)/.exec(all)?.[1] ?? 0), text: all });
    });
    const head = [
      `${method} ${path} HTTP/1.1`,
      `Host: ${address().host}`,
      'Connection: close',
      'Content-Type: application/json',
      ...(bytes.length > 0 || method !== 'GET' ? [`Content-Length: ${bytes.length}`] : []),
      ...headers,
    ];
    socket.write(`${head.join('\r\n')}\r\n\r\n`);
    if (bytes.length > 0) socket.write(bytes);
  });
}

const nowhere = '00000000-0000-4000-8000-000000000000';
const paths = (id: string) => [
  '/api/pieces',
  `/api/pieces/${id}`,
  `/api/pieces/${id}/file`,
  `/api/pieces/${id}/seam`,
  `/api/pieces/${id}/duplicate`,
  `/api/pieces/${id}/thumbnail`,
  `/api/pieces/${id}/revisions`,
  `/api/pieces/${id}/revisions/1`,
  `/api/pieces/${id}/restore`,
  '/api/assets',
  `/api/assets/${'0'.repeat(64)}`,
  '/api/looks',
  `/api/looks/${id}`,
  '/api/health',
];
/** Identifiers that are none. */
const names = ['%', '%zz', '%00', '..%2f..', 'constructor', '__proto__', '2147483648', '9'.repeat(400), '%F0%9F%8E%AA'];
const deep = `${'['.repeat(5000)}${']'.repeat(5000)}`;
const bodies: readonly (string | Buffer)[] = [
  '',
  'null',
  '[]',
  '{',
  deep,
  `{"source": ${deep}}`,
  `{"source": ${JSON.stringify(deep)}}`,
  '{"source": "\\u0000"}',
  '{"source": null, "basedOn": "one"}',
  '{"source": "{}", "basedOn": 2147483648}',
  '{"source": "{}", "basedOn": -1e999}',
  '{"__proto__": {"source": "{}"}, "constructor": 1}',
  `{"source": ${JSON.stringify('{"maypole":"piece","version":6,"name":"\u0000","ribbons":{},"scene":[]}')}}`,
  Buffer.from([0xff, 0xfe, 0x00, 0x80, 0xc3, 0x28]),
];

test('no path, method, header or body is answered as a fault of the server', async () => {
  test.slow();
  let asked = 0;
  const look = async (method: string, path: string, body: string | Buffer = '', headers: readonly string[] = []) => {
    const { status, text } = await raw(method, path, body, headers);
    asked++;
    const what = `${method} ${path.slice(0, 60)} ${String(body).slice(0, 40)} ${headers.join()}`;
    expect(status, what).toBeGreaterThanOrEqual(200);
    expect(status, what).toBeLessThan(500);
    // Nor does an answer show what is behind.
    expect(text, what).not.toMatch(/ at .*\.(ts|js):\d+|node_modules|postgres/);
  };
  for (const path of paths(nowhere))
    for (const method of ['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS', 'TRACE'])
      await look(method, path);
  for (const name of names)
    for (const path of [
      `/api/pieces/${name}`,
      `/api/pieces/${nowhere}/revisions/${name}`,
      `/api/assets/${name}`,
      `/piece/${name}`,
    ])
      await look('GET', path);
  for (const body of bodies) {
    for (const path of ['/api/pieces', '/api/looks', '/api/assets?name=x.glb', '/api/assets?name=%00.png'])
      await look('POST', path, body);
    for (const path of [`/api/pieces/${nowhere}`, `/api/pieces/${nowhere}/thumbnail`, `/api/pieces/${nowhere}/seam`])
      await look('PUT', path, body);
  }
  for (const headers of [
    ['Content-Type: text/plain'],
    ['Origin: null'],
    ['Accept: \u0001'],
    ['Cookie: a=%'],
    ['X-Forwarded-Host: elsewhere'],
  ])
    await look('POST', '/api/pieces', '{}', headers);
  expect(asked).toBeGreaterThan(200);
});

test('a byte-order mark before a document is taken; what was acknowledged is there to the letter', async ({
  request,
}) => {
  const source = writePiece(smallPiece('Marked'));
  const marked = await request.post('/api/pieces', { data: { source: `\ufeff${source}` } });
  expect(marked.status()).toBe(201);
  const plain = await request.post('/api/pieces', { data: { source } });
  const { id } = (await plain.json()) as { id: string };
  expect(await (await request.get(`/api/pieces/${id}/file`)).text()).toBe(source);
  for (const made of [marked, plain]) await request.delete(`/api/pieces/${((await made.json()) as { id: string }).id}`);
});

test('other names and pages from elsewhere are refused', async () => {
  const { status } = await raw('GET', '/api/pieces', '', []);
  expect(status).toBe(200);
  const foreign = await raw('DELETE', `/api/pieces/${nowhere}`, '', ['Origin: http://elsewhere.example']);
  expect(foreign.status).toBe(403);
  expect(foreign.text).toContain('may not change anything here');
});

test('what Maypole is made with is shown, reached from the shelf', async ({ page }) => {
  const blocked: string[] = [];
  page.on('console', (m) => m.type() === 'error' && blocked.push(m.text()));
  await page.goto('/');
  await page.getByRole('link', { name: 'Made with' }).click();
  await expect(page.getByRole('heading', { name: 'What Maypole is made with' })).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: /^three \d/ })).toBeVisible();
  await expect(page.getByText(/three\.js authors/).first()).toBeVisible();
  expect(blocked).toEqual([]);
});
