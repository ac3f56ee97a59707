import { describe, expect, it } from 'vitest';
import { FRONT } from './figures';
import { Turns } from './turns';

describe('what a client may have under way and ask', () => {
  const few = {
    ...FRONT,
    connections: 3,
    allConnections: 5,
    requests: 2,
    burst: 4,
    perSecond: 1,
    bytes: 100,
    bytesPerSecond: 10,
  };
  const none = () => undefined;
  const at = () => {
    let now = 0;
    return { turns: new Turns(few, () => now), pass: (ms: number) => (now += ms) };
  };
  it('connections are bounded for one and for all, and given back', () => {
    const { turns } = at();
    expect([1, 2, 3, 4].map(() => turns.connected('a'))).toEqual([true, true, true, false]);
    expect([1, 2, 3].map(() => turns.connected('b'))).toEqual([true, true, false]);
    turns.disconnected('a');
    expect(turns.connected('b')).toBe(true);
    expect(turns.counts().connections).toBe(5);
  });
  it('requests under way are bounded', () => {
    const { turns } = at();
    expect(turns.begin('a', 0)).toBeUndefined();
    expect(turns.begin('a', 0)).toBeUndefined();
    expect(turns.begin('a', 0)).toMatchObject({ seconds: 1, error: expect.stringContaining('2 requests') as string });
    expect(turns.begin('b', 0)).toBeUndefined();
    turns.end('a', none);
    expect(turns.begin('a', 0)).toBeUndefined();
  });
  it('how often one asks is bounded, and comes back with time', () => {
    const { turns, pass } = at();
    const ask = () => {
      const wait = turns.begin('a', 0);
      if (!wait) turns.end('a', none);
      return wait?.seconds ?? 0;
    };
    expect([1, 2, 3, 4, 5].map(ask)).toEqual([0, 0, 0, 0, 1]);
    pass(2000);
    expect([1, 2, 3].map(ask)).toEqual([0, 0, 1]);
  });
  it('what one sends is bounded; a wait says how long, and takes nothing', () => {
    const { turns, pass } = at();
    const send = (bytes: number) => {
      const wait = turns.begin('a', bytes);
      if (!wait) turns.end('a', none);
      return wait?.seconds ?? 0;
    };
    expect(send(80)).toBe(0);
    expect(send(80)).toBe(6);
    pass(6000);
    expect(send(80)).toBe(0);
  });
  it('few requests of one are worked on at once, the others in their order, and those who went are passed over', () => {
    const turns = new Turns({ ...FRONT, together: 2 });
    const begun: number[] = [];
    const all = [0, 1, 2, 3, 4].map((i) => () => void begun.push(i));
    for (const one of all) {
      turns.begin('a', 0);
      turns.work('a', one);
    }
    turns.begin('b', 0);
    turns.work('b', () => void begun.push(9));
    expect(begun).toEqual([0, 1, 9]);
    turns.end('a', all[2]);
    turns.end('a', all[0]);
    turns.end('a', all[1]);
    expect(begun).toEqual([0, 1, 9, 3, 4]);
    turns.end('a', all[3]);
    turns.end('a', all[4]);
    expect(turns.counts().requests).toBe(1);
    turns.work('a', all[0]);
    expect(begun).toEqual([0, 1, 9, 3, 4, 0]);
  });
  it('who has been quiet is forgotten', () => {
    const { turns, pass } = at();
    for (let i = 0; i < 1500; i++) {
      turns.begin(`c${i}`, 0);
      turns.end(`c${i}`, none);
      pass(1000);
    }
    expect(turns.counts().clients).toBeLessThan(1010);
  });
});
