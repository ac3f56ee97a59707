/**
 * A 106-bit fingerprint of a text as 22 hexadecimal-like digits: two runs of cyrb53 (bryc, public
 * domain, from memory) with different seeds. Equal texts give equal fingerprints in every worker.
 */
export function fingerprint(text: string): string {
  return half(text, 0x2f0b4c47) + half(text, 0x61c88647);
}

const half = (text: string, seed: number) => hash53(text, seed).toString(36).padStart(11, '0');

/** 53 bits of a text: cyrb53 (bryc, public domain). Not for secrets. */
export function hash53(text: string, seed: number): number {
  let h1 = 0xdeadbeef ^ seed;
  let h2 = 0x41c6ce57 ^ seed;
  for (let i = 0; i < text.length; i++) {
    const ch = text.charCodeAt(i);
    h1 = Math.imul(h1 ^ ch, 2654435761);
    h2 = Math.imul(h2 ^ ch, 1597334677);
  }
  h1 = Math.imul(h1 ^ (h1 >>> 16), 2246822507) ^ Math.imul(h2 ^ (h2 >>> 13), 3266489909);
  h2 = Math.imul(h2 ^ (h2 >>> 16), 2246822507) ^ Math.imul(h1 ^ (h1 >>> 13), 3266489909);
  return 4294967296 * (2097151 & h2) + (h1 >>> 0);
}
