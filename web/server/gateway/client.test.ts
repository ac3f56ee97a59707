import { describe, expect, it } from 'vitest';
import { clientOf, isLoopback, isProxy, plainAddress, proxyList } from './client';

describe('who asks', () => {
  const proxies = proxyList('127.0.0.1, 10.1.0.0/16, fd00::/8');
  it.each([
    // peer, X-Forwarded-For, who it is
    ['192.0.2.7', undefined, '192.0.2.7'],
    ['192.0.2.7', '198.51.100.1', '192.0.2.7'],
    ['127.0.0.1', '198.51.100.1', '198.51.100.1'],
    ['::ffff:127.0.0.1', '198.51.100.1', '198.51.100.1'],
    ['127.0.0.1', '203.0.113.9, 198.51.100.1', '198.51.100.1'],
    ['127.0.0.1', '198.51.100.1, 10.1.2.3', '198.51.100.1'],
    ['127.0.0.1', 'nonsense', '127.0.0.1'],
    ['127.0.0.1', '', '127.0.0.1'],
    ['fd00::1', '2001:db8::5', '2001:db8::5'],
    [undefined, '198.51.100.1', 'unknown'],
  ])('%s with %s is %s', (peer, forwarded, client) => expect(clientOf(peer, forwarded, proxies)).toBe(client));
  it('nobody but named proxies is believed', () => {
    expect(clientOf('10.2.0.1', '198.51.100.1', proxies)).toBe('10.2.0.1');
    expect(isProxy('10.1.255.255', proxies)).toBe(true);
    expect(isProxy('10.2.0.1', proxies)).toBe(false);
    expect(isProxy('127.0.0.1', proxyList(''))).toBe(false);
  });
  it.each(['proxy.example', '10.0.0.0/33', '10.0.0/8', '::1/129', '10.0.0.1/x'])('%s is no proxy', (text) =>
    expect(() => proxyList(text)).toThrow(text),
  );
  it('addresses are told apart', () => {
    expect(plainAddress('fe80::1%eth0')).toBe('fe80::1');
    expect(['127.0.0.1', '127.9.9.9', '::1'].map(isLoopback)).toEqual([true, true, true]);
    expect(isLoopback('128.0.0.1')).toBe(false);
  });
});
