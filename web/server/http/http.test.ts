import { existsSync, readFileSync } from 'node:fs';
import { describe, expect, it, vi } from 'vitest';
import { z } from 'zod';
import { attachment, fileName } from './file-name';
import { log } from '../gateway/log';
import { AppError } from './app-error';
import { contentSecurityPolicy, refusal, SAFETY_HEADERS } from './guard';
import { bodyFile, parseJson, readBody, withFolder } from './body';
import { route } from './route';

const ask = (body: string, headers: Record<string, string> = {}) =>
  new Request('http://127.0.0.1/x', { method: 'POST', body, headers });

it('a body of any depth is refused in words, wherever in a request it stands', () => {
  const schema = z.object({ source: z.string() });
  for (const depth of [251, 5000, 500_000]) {
    const deep = `${'['.repeat(depth)}${']'.repeat(depth)}`;
    for (const body of [deep, `{"source": ${deep}}`])
      expect(() => parseJson(Buffer.from(body), schema)).toThrow(/brackets \d+ deep, and 250 is the most/);
  }
  expect(() => parseJson(Buffer.from(`${'['.repeat(200)}${']'.repeat(200)}`), schema)).toThrow(z.ZodError);
});

describe('who may ask', () => {
  it.each(['127.0.0.1:4173', 'localhost:80', 'LOCALHOST', '[::1]:9'])('%s may', (host) =>
    expect(refusal('GET', host, null)).toBeNull(),
  );
  it('foreign names may not, unless they are listed', () => {
    expect(refusal('GET', 'evil.example', null)).toContain('does not answer to the name “evil.example”');
    expect(refusal('GET', null, null)).not.toBeNull();
    expect(refusal('GET', '127.0.0.1.evil.example', null)).not.toBeNull();
    expect(refusal('GET', 'studio.example:4173', null, 'wall.example, Studio.Example')).toBeNull();
  });
  it('a page of the same name without TLS is another origin where it came over TLS, and the other way round', () => {
    const host = 'maypole.studio.example';
    expect(refusal('PUT', host, `https://${host}`, host, true)).toBeNull();
    expect(refusal('PUT', host, `http://${host}`, host, true)).toContain(`“http://${host}”`);
    expect(refusal('PUT', '127.0.0.1:4173', 'http://127.0.0.1:4173', '', false)).toBeNull();
    expect(refusal('PUT', '127.0.0.1:4173', 'https://127.0.0.1:4173', '', false)).not.toBeNull();
  });
  it('pages of other origins may look but not change', () => {
    expect(refusal('POST', '127.0.0.1:4173', 'http://127.0.0.1:4173')).toBeNull();
    for (const origin of ['http://evil.example', 'http://127.0.0.1:9999', 'null', 'nonsense'])
      for (const method of ['POST', 'PUT', 'DELETE', 'PATCH'])
        expect(refusal(method, '127.0.0.1:4173', origin)).toContain('may not change anything');
    expect(refusal('GET', '127.0.0.1:4173', 'http://evil.example')).toBeNull();
  });
  it('pages run only their own scripts, and stand alone', () => {
    const policy = contentSecurityPolicy('abc');
    expect(policy).toContain("script-src 'self' 'nonce-abc' 'strict-dynamic' 'wasm-unsafe-eval';");
    expect(policy).not.toContain("'unsafe-eval'");
    expect(policy).toContain("frame-ancestors 'none'");
    expect(SAFETY_HEADERS['Cross-Origin-Embedder-Policy']).toBe('require-corp');
  });
});

describe('answers', () => {
  const answer = async (work: () => Promise<Response>) => {
    const response = await route({ who: 'anyone' }, work)(new Request('http://127.0.0.1/x'));
    return { status: response.status, body: (await response.json()) as { error: string } };
  };
  it('pass sentences for the user on, and hide everything else', async () => {
    expect(
      await answer(async () => {
        throw new AppError(404, 'Not here.');
      }),
    ).toEqual({ status: 404, body: { error: 'Not here.' } });
    const logged = vi.spyOn(log(), 'error');
    const { status, body } = await answer(async () => {
      throw new Error('secret at /some/file.ts:12');
    });
    expect(status).toBe(500);
    expect(body.error).not.toMatch(/secret|file\.ts|Error/);
    expect(logged).toHaveBeenCalledOnce();
    logged.mockRestore();
    expect(
      (
        await answer(async () => {
          z.strictObject({}).parse({ a: 1 });
          return new Response();
        })
      ).status,
    ).toBe(400);
    expect(
      await answer(async () => {
        z.object({ source: z.string().max(3, 'Too large.') }).parse({ source: 'xxxx' });
        return new Response();
      }),
    ).toEqual({ status: 413, body: { error: 'Too large.' } });
    expect(
      (
        await answer(async () => {
          z.object({ n: z.number().max(3) }).parse({ n: 4 });
          return new Response();
        })
      ).status,
    ).toBe(400);
  });
  it('refuse bodies that are too long, whether they say so or not', async () => {
    await expect(readBody(ask('x'.repeat(200)), 100)).rejects.toMatchObject({ status: 413 });
    const stream = new ReadableStream({
      start(c) {
        for (let i = 0; i < 30; i++) c.enqueue(new Uint8Array(10));
        c.close();
      },
    });
    const streamed = new Request('http://127.0.0.1/x', { method: 'POST', body: stream, duplex: 'half' } as RequestInit);
    await expect(readBody(streamed, 100)).rejects.toMatchObject({ status: 413 });
    expect((await readBody(ask('x'.repeat(100)), 100)).length).toBe(100);
  });
  it('say how much is taken where that is little', async () => {
    await expect(readBody(ask('x'.repeat(200)), 100)).rejects.toThrow('100 bytes');
    await expect(readBody(ask('x'), 0)).rejects.toThrow('larger than 0 bytes');
  });
  it('check what is asked', () => {
    expect(() => parseJson(Buffer.from('{"a":'), z.any())).toThrow('not JSON');
    expect(parseJson(Buffer.from('{"a":1}'), z.strictObject({ a: z.number() }))).toEqual({ a: 1 });
  });
  it('to files are as they came, refused when too long, and gone afterwards', async () => {
    let file = '';
    await withFolder(async (folder) => {
      file = await bodyFile(ask('abc'), 10, folder);
      expect(readFileSync(file, 'utf8')).toBe('abc');
      await expect(bodyFile(ask('x'.repeat(20)), 10, folder)).rejects.toMatchObject({ status: 413 });
    });
    expect(existsSync(file)).toBe(false);
  });
});

describe('file names', () => {
  it.each([
    ['{"name":"Barometer Blooms"}', 'barometer-blooms.maypole.json'],
    ['{"name":"Über / Wetter\\"; x"}', 'uber-wetter-x.maypole.json'],
    ['{"name":"  …  "}', 'piece.maypole.json'],
    ['{"name":7}', 'piece.maypole.json'],
    ['not json', 'piece.maypole.json'],
    ['{"name":"北風"}', '北風.maypole.json'],
  ])('%s', (source, name) => expect(fileName(source)).toBe(name));
  it('are sent with every letter, and once more without those that a header cannot have (RFC 6266)', () => {
    expect(attachment('halo.mp4')).toBe('attachment; filename="halo.mp4"');
    expect(attachment('北風.mp4')).toBe(`attachment; filename="__.mp4"; filename*=UTF-8''%E5%8C%97%E9%A2%A8.mp4`);
    expect(() => new Headers({ 'Content-Disposition': attachment('北風 (2).mp4') })).not.toThrow();
  });
});
