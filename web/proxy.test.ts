import { NextRequest } from 'next/server';
import { describe, expect, it } from 'vitest';
import { proxy } from './proxy';

const ask = (headers: Record<string, string>, method = 'GET') =>
  proxy(new NextRequest('http://127.0.0.1:4173/', { method, headers }));

describe('before every request', () => {
  it('a local page gets a policy with a nonce of its own, and an isolated process', () => {
    const [a, b] = [ask({ host: '127.0.0.1:4173' }), ask({ host: '127.0.0.1:4173' })];
    const nonce = (r: Response) => /'nonce-([^']+)'/.exec(r.headers.get('content-security-policy')!)![1];
    expect(nonce(a)).not.toBe(nonce(b));
    expect(nonce(a).length).toBeGreaterThan(20);
    expect(a.headers.get('cross-origin-opener-policy')).toBe('same-origin');
    expect(a.headers.get('x-content-type-options')).toBe('nosniff');
  });
  it('a foreign name or origin gets 403 in words', async () => {
    const name = ask({ host: 'evil.example' });
    expect(name.status).toBe(403);
    expect(((await name.json()) as { error: string }).error).toContain('MAYPOLE_HOSTS');
    expect(ask({ host: '127.0.0.1:4173', origin: 'http://evil.example' }, 'PUT').status).toBe(403);
    expect(ask({ host: '127.0.0.1:4173', origin: 'http://127.0.0.1:4173' }, 'PUT').status).toBe(200);
  });
});
