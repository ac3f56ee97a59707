import { appendFileSync, mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { FrameLedger } from './ledger';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'maypole-ledger-'));
});
afterEach(() => rmSync(folder, { recursive: true }));

const kept = (n: number) => ({ sha256: `${n}`.repeat(64), bytes: n });

it('knows after a break what it knew before, less the line that was cut off', () => {
  const file = path.join(folder, 'frames.jsonl');
  const first = new FrameLedger(file);
  first.add('a', { solid: kept(1) });
  first.add('b', { solid: kept(2) });
  appendFileSync(file, '\n["c",{"solid":{"sha');
  const second = new FrameLedger(file);
  expect(second.of('b')).toEqual({ solid: kept(2) });
  expect(second.of('c')).toEqual({});
  second.add('c', { solid: kept(3) });
  second.add('a', { half: kept(4) });
  const third = new FrameLedger(file);
  expect(third.of('a')).toEqual({ solid: kept(1), half: kept(4) });
  expect(third.of('c')).toEqual({ solid: kept(3) });
});
