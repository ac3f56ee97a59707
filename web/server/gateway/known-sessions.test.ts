import { describe, expect, it } from 'vitest';
import { noteSession, personOf } from './known-sessions';

describe('whose turn it is', () => {
  const cookie = 'a=b; __Host-maypole.session_token=secret.signature; c=d';
  it('goes by the person once their session was looked up, for a while, and never by a made-up cookie', () => {
    expect(personOf(cookie, 0)).toBeUndefined();
    noteSession(cookie, 'ines', 0);
    expect(personOf('__Host-maypole.session_token=secret.signature', 1000)).toBe('ines');
    expect(personOf('__Host-maypole.session_token=other', 1000)).toBeUndefined();
    expect(personOf(undefined, 1000)).toBeUndefined();
    expect(personOf(cookie, 400_000)).toBeUndefined();
  });
});
