import type { IncomingMessage, ServerResponse } from 'node:http';
import net, { type AddressInfo } from 'node:net';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { FRONT, type FrontFigures } from './figures';
import { front, type Front } from './gateway';
import { metrics } from './metrics';

let up: Front | undefined;
afterEach(() => {
  up?.server.closeAllConnections();
  up?.server.close();
});

type Seen = IncomingMessage['headers'];
async function open(
  figures: Partial<FrontFigures> = {},
  answer: (request: IncomingMessage, response: ServerResponse) => unknown = (request, response) => {
    request.resume();
    request.on('end', () => response.end(JSON.stringify(request.headers)));
  },
  proxies?: string,
) {
  up = front({ answer, proxies, hosts: 'maypole.studio.example', figures: { ...FRONT, ...figures } });
  await new Promise<void>((resolve) => up!.server.listen(0, '127.0.0.1', resolve));
  const { port } = up.server.address() as AddressInfo;
  return { port, address: `http://127.0.0.1:${port}` };
}
/** Writes raw bytes, and gives all that comes back until the connection is closed. */
const raw = (port: number, text: string, from?: string) =>
  new Promise<string>((resolve, reject) => {
    let got = '';
    const socket = net.connect({ port, host: '127.0.0.1', localAddress: from }, () => socket.write(text));
    socket.on('data', (d) => (got += d.toString()));
    socket.on('close', () => resolve(got));
    socket.on('error', (e: NodeJS.ErrnoException) => (e.code === 'ECONNRESET' ? undefined : reject(e)));
  });
const error = async (response: Response) => ((await response.json()) as { error: string }).error;

describe('the way in', () => {
  it('gives each request a number, a policy with a nonce of its own, and an isolated page', async () => {
    const { address } = await open();
    const [a, b] = [await fetch(address), await fetch(address)];
    const nonce = (r: Response) => /'nonce-([^']+)'/.exec(r.headers.get('content-security-policy')!)![1];
    expect(nonce(a)).not.toBe(nonce(b));
    expect(nonce(a).length).toBeGreaterThan(20);
    expect(a.headers.get('x-request')).not.toBe(b.headers.get('x-request'));
    expect(a.headers.get('cross-origin-opener-policy')).toBe('same-origin');
    const seen = (await a.json()) as Seen;
    expect(seen['x-nonce']).toBe(nonce(a));
    expect(seen['content-security-policy']).toContain(nonce(a));
  });
  it('what a client says of itself is replaced', async () => {
    const { address } = await open();
    const headers = {
      'x-maypole-client': '192.0.2.1',
      'x-maypole-secure': '1',
      'x-maypole-request': 'mine',
      'x-nonce': 'mine',
      'x-forwarded-for': '192.0.2.1',
      'x-forwarded-proto': 'https',
      'x-middleware-subrequest': 'middleware',
    };
    const seen = (await (await fetch(address, { headers })).json()) as Seen;
    expect(seen).toMatchObject({ 'x-maypole-client': '127.0.0.1', 'x-maypole-secure': '0' });
    expect([seen['x-maypole-request'], seen['x-nonce']]).not.toContain('mine');
    expect(seen['x-middleware-subrequest']).toBeUndefined();
  });
  it('a named proxy is believed', async () => {
    const { address } = await open({}, undefined, '127.0.0.1');
    const headers = { 'x-forwarded-for': '198.51.100.3', 'x-forwarded-proto': 'https' };
    const answer = await fetch(address, { headers });
    expect(await answer.json()).toMatchObject({ 'x-maypole-client': '198.51.100.3', 'x-maypole-secure': '1' });
    expect(answer.headers.get('strict-transport-security')).toContain('max-age');
  });
  it('open to others, it takes nothing without TLS but how it is, on this machine', async () => {
    up = front({ answer: (_request, response) => response.end('in'), proxies: '127.0.0.1', secureOnly: true });
    await new Promise<void>((resolve) => up!.server.listen(0, '127.0.0.1', resolve));
    const address = `http://127.0.0.1:${(up.server.address() as AddressInfo).port}`;
    const status = async (where: string, headers = {}) => (await fetch(address + where, { headers })).status;
    expect(await status('/')).toBe(403);
    expect(await status('/api/health')).toBe(200);
    expect(await status('/api/health', { 'X-Forwarded-For': '198.51.100.3' })).toBe(403);
    expect(await status('/', { 'X-Forwarded-Proto': 'https' })).toBe(200);
  });
  it('what nothing behind it could read is refused in words', async () => {
    const { port, address } = await open();
    for (const [text, status, words] of [
      [`TRACE / HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n`, 405, 'TRACE'],
      [`GET /%zz HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n`, 400, '%25'],
      [`GET /a%00b HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n`, 400, 'zero'],
      [`GET / HTTP/1.1\r\nHost: evil.example\r\nConnection: close\r\n\r\n`, 403, 'evil.example'],
      [`GET / HTTP/1.1\r\nHost: 127.0.0.1\r\nX: ${'x'.repeat(20_000)}\r\n\r\n`, 431, '16 kB'],
      [`nonsense\r\n\r\n`, 400, 'cannot be read'],
      [`GET / HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 999999999999\r\n\r\n`, 413, 'MB'],
    ] as const) {
      const got = await raw(port, text);
      expect(got).toMatch(new RegExp(`^HTTP/1.1 ${status} `));
      expect(got).toContain(words);
    }
    const foreign = await fetch(address, { method: 'PUT', headers: { Origin: 'http://evil.example' } });
    expect(foreign.status).toBe(403);
    expect(await error(foreign)).toContain('evil.example');
    expect((await fetch(address, { method: 'PUT', headers: { Origin: address } })).status).toBe(200);
  });
  it('headers and bodies that do not come are not waited for', async () => {
    const { port } = await open({ headers: 300, idle: 300 });
    const began = Date.now();
    const [half, still] = await Promise.all([
      raw(port, 'GET / HTTP/1.1\r\nHost: 127'),
      raw(port, 'POST / HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 10\r\n\r\nabc'),
    ]);
    expect(half).toMatch(/^HTTP\/1.1 408 /);
    expect(still).toMatch(/^HTTP\/1.1 408 /);
    expect(still).toContain('send it again');
    expect(Date.now() - began).toBeLessThan(10_000);
  });
  it('each request is counted once, however it ends', async () => {
    const counted = async () => {
      const { values } = await metrics().requests.get();
      return values.reduce((n, v) => n + v.value, 0);
    };
    const { port, address } = await open({ idle: 200 });
    const before = await counted();
    await fetch(address);
    await fetch(address, { headers: { Origin: 'http://evil.example' }, method: 'PUT' });
    await raw(port, 'POST / HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 10\r\n\r\nabc');
    await vi.waitFor(async () => expect(await counted()).toBe(before + 3), { timeout: 20_000 });
    await new Promise((resolve) => setTimeout(resolve, 100));
    expect(await counted()).toBe(before + 3);
  });
  it('a body that says no length, and is longer than any may be, is cut off', async () => {
    let most = 0;
    const { port } = await open({ body: 100_000, idle: 1000 }, (request) => {
      request.on('data', (d: Buffer) => (most += d.length));
    });
    const chunk = `4000\r\n${'x'.repeat(0x4000)}\r\n`;
    const got = await raw(
      port,
      `POST / HTTP/1.1\r\nHost: 127.0.0.1\r\nTransfer-Encoding: chunked\r\n\r\n${chunk.repeat(40)}`,
    );
    expect(got).toMatch(/^HTTP\/1.1 413 /);
    expect(most).toBeGreaterThan(100_000);
  });
  it('whoever sends on, and reads the answer only then, gets it in full', async () => {
    const { port } = await open({}, (_request, response) => response.end('not read'));
    const send = (host: string, more = '') =>
      new Promise<string>((resolve, reject) => {
        let got = '';
        const socket = net.connect({ port, host: '127.0.0.1' });
        socket.on('error', reject).on('close', () => resolve(got));
        // A connection that is reset takes with it what has come and is not read yet.
        socket.pause();
        socket.write(`PUT / HTTP/1.1\r\nHost: ${host}\r\nContent-Length: 1000000\r\n${more}\r\n`);
        let left = 1_000_000;
        const every = setInterval(() => {
          socket.write(Buffer.alloc(100_000));
          left -= 100_000;
          if (left > 0) return;
          clearInterval(every);
          socket.on('data', (d) => (got += d.toString()));
          socket.resume();
          socket.end();
        }, 20);
      });
    const [refused, unread, last] = await Promise.all([
      send('evil.example'),
      send('127.0.0.1'),
      send('127.0.0.1', 'Connection: close\r\n'),
    ]);
    expect(refused).toMatch(/^HTTP\/1.1 403 [^]*evil\.example/);
    for (const answer of [unread, last]) expect(answer).toMatch(/^HTTP\/1.1 200 [^]*not read/);
  });
  it('whoever goes on sending after that is cut off', async () => {
    const { port } = await open({ linger: 60_000, lingerBytes: 300_000 });
    let sent = 0;
    await new Promise<void>((resolve) => {
      const socket = net.connect({ port, host: '127.0.0.1' });
      const more = () => {
        while (!socket.destroyed && socket.write(Buffer.alloc(64 * 1024))) sent += 64 * 1024;
      };
      socket.write('PUT / HTTP/1.1\r\nHost: evil.example\r\nContent-Length: 100000000\r\n\r\n');
      socket.on('drain', more).on('error', () => undefined);
      socket.resume().on('close', () => resolve());
      more();
    });
    expect(sent).toBeLessThan(50_000_000);
  });
  it('a body that nobody reads is not taken to its end', async () => {
    const { port } = await open({}, (_request, response) => response.end('no'));
    const got = await raw(port, `POST / HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 1000000\r\n\r\nabc`);
    expect(got).toContain('no');
  });
  it('many connections of one client are refused, and others come in', async () => {
    const { port, address } = await open({ connections: 20 });
    const held = await Promise.all(
      Array.from(
        { length: 20 },
        () =>
          new Promise<net.Socket>((resolve) => {
            const socket = net.connect({ port, host: '127.0.0.1', localAddress: '127.0.0.9' }, () => resolve(socket));
            socket.on('error', () => undefined);
          }),
      ),
    );
    const one = await raw(port, 'GET / HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n', '127.0.0.9');
    expect(one).toMatch(/^HTTP\/1.1 429 /);
    expect((await fetch(address)).status).toBe(200);
    for (const socket of held) socket.destroy();
  });
  it('many requests at once of one client have to wait', async () => {
    const waiting: ServerResponse[] = [];
    const { address } = await open({ requests: 5 }, (_request, response) => waiting.push(response));
    const five = Array.from({ length: 5 }, () => fetch(address));
    while (waiting.length < 5) await new Promise((resolve) => setTimeout(resolve, 5));
    const sixth = await fetch(address);
    expect(sixth.status).toBe(429);
    expect(sixth.headers.get('retry-after')).toBe('1');
    expect(await error(sixth)).toContain('5 requests');
    for (const response of waiting) response.end('ok');
    expect((await Promise.all(five)).map((r) => r.status)).toEqual([200, 200, 200, 200, 200]);
  });
  it('ending gives what is under way its time, and takes nothing new', async () => {
    let arrived: (response: ServerResponse) => void;
    const asked = new Promise<ServerResponse>((resolve) => (arrived = resolve));
    const { address } = await open({ drain: 5000 }, (_request, response) => arrived(response));
    const under = fetch(address);
    const response = await asked;
    const drained = up!.drain();
    await expect(fetch(address)).rejects.toThrow();
    response.end('done');
    expect(await (await under).text()).toBe('done');
    await drained;
  });
  it('ending does not wait for ever', async () => {
    const { address } = await open({ drain: 100 }, () => undefined);
    const under = fetch(address).then(
      () => 'answered',
      () => 'cut',
    );
    await new Promise((resolve) => setTimeout(resolve, 50));
    await up!.drain();
    expect(await under).toBe('cut');
  });
});
