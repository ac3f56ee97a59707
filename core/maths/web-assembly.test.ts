import { describe, expect, it } from 'vitest';
import { compileWasm, PAGE, runWasm, wasmMemory } from './web-assembly';

/** The smallest module that adds: magic number and version, then type, function, export and code (WebAssembly 1.0, section 5). */
const ADD = [
  [0, 0x61, 0x73, 0x6d, 1, 0, 0, 0],
  [1, 7, 1, 0x60, 2, 0x7f, 0x7f, 1, 0x7f],
  [3, 2, 1, 0],
  [7, 7, 1, 3, 0x61, 0x64, 0x64, 0, 0],
  [10, 9, 1, 7, 0, 0x20, 0, 0x20, 1, 0x6a, 0x0b],
].flat();

describe('WebAssembly', () => {
  it('compiles base64 once and runs it as often as wanted', () => {
    const code = compileWasm(Buffer.from(ADD).toString('base64'));
    const one = runWasm<{ add(a: number, b: number): number }>(code, {});
    const two = runWasm<{ add(a: number, b: number): number }>(code, {});
    expect(one.add(40, 2)).toBe(42);
    expect(two.add(2147483647, 1)).toBe(-2147483648);
    expect(one).not.toBe(two);
  });
  it('refuses what is no module', () => {
    expect(() => compileWasm(Buffer.from([1, 2, 3]).toString('base64'))).toThrow(/WebAssembly/);
  });
  it('gives a memory that grows by pages up to its most', () => {
    const memory = wasmMemory(1, 3);
    expect(memory.buffer.byteLength).toBe(PAGE);
    expect(memory.grow(2)).toBe(1);
    expect(memory.buffer.byteLength).toBe(3 * PAGE);
    expect(() => memory.grow(1)).toThrow(RangeError);
  });
});
