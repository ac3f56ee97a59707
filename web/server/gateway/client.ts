import { BlockList, isIP } from 'node:net';

/** Normalises an address: IPv4 over an IPv6 socket is IPv4. */
export function plainAddress(address: string | undefined): string {
  const plain = (address ?? '').replace(/^::ffff:(?=\d+\.)/i, '').replace(/%.*$/, '');
  return isIP(plain) ? plain : 'unknown';
}

/** Proxies by address or range, `10.0.0.1, 10.1.0.0/16`; throws a sentence that names invalid ones. */
export function proxyList(text = ''): BlockList {
  const list = new BlockList();
  for (const entry of text
    .split(',')
    .map((e) => e.trim())
    .filter(Boolean)) {
    const [address, bits] = entry.split('/');
    const kind = isIP(address);
    const family = kind === 6 ? 'ipv6' : 'ipv4';
    const length = bits === undefined ? undefined : Number(bits);
    const most = kind === 6 ? 128 : 32;
    if (!kind || (length !== undefined && !(Number.isInteger(length) && length >= 0 && length <= most)))
      throw new Error(
        `MAYPOLE_PROXIES names “${entry}”, which is no address and no range; write 10.0.0.1 or 10.0.0.0/8.`,
      );
    if (length === undefined) list.addAddress(address, family);
    else list.addSubnet(address, length, family);
  }
  return list;
}

const trusted = (list: BlockList, address: string) =>
  isIP(address) !== 0 && list.check(address, isIP(address) === 6 ? 'ipv6' : 'ipv4');

/**
 * The client: the peer or, if that is a trusted proxy, the last untrusted address in `X-Forwarded-For`. Earlier entries
 * may be forged.
 */
export function clientOf(peer: string | undefined, forwarded: string | undefined, proxies: BlockList): string {
  let client = plainAddress(peer);
  const chain = (forwarded ?? '').split(',').map((a) => a.trim());
  while (trusted(proxies, client)) {
    const before = plainAddress(chain.pop());
    if (before === 'unknown') break;
    client = before;
  }
  return client;
}

/** Whether the peer is a trusted proxy, whose word on the protocol is believed. */
export function isProxy(peer: string | undefined, proxies: BlockList): boolean {
  return trusted(proxies, plainAddress(peer));
}

/** Whether an address is of this machine. */
export function isLoopback(address: string): boolean {
  return address === '::1' || address.startsWith('127.');
}
