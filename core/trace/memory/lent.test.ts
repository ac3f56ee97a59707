import { describe, expect, it } from 'vitest';
import { ball, pictureOf, settings, square, white, withSky } from '../fixture';
import { SceneGone } from './memory';
import { SceneLock } from './scene-lock';
import { BorrowedTracer } from '../paths/tile-tracer';
import { Tracer } from '../paths/tracer';

const tile = { x: 0, y: 0, width: 8, height: 8 };
const balls = withSky(pictureOf([{ mesh: ball(0.1) }], [white]));
const squares = withSky(pictureOf([{ mesh: square(0.05), surface: { baseColor: '#884422' } }], [white]));

/** What a tracer that has nothing to do with others makes of a picture. */
function alone(picture: typeof balls) {
  const tracer = new Tracer();
  tracer.load(picture, settings);
  return tracer.samples(tile, 0, 4);
}

describe('a scene that is read in the memory of another thread', () => {
  it('is told as gone once another is laid out there, and read again when that is lent', () => {
    const tracer = new Tracer(3);
    tracer.load(balls, settings);
    const readers = tracer.lend(64).map((lent) => new BorrowedTracer(lent));
    expect(readers).toHaveLength(2);
    for (const reader of readers) expect(reader.samples(tile, 0, 4)).toEqual(alone(balls));
    tracer.load(squares, settings);
    for (const reader of readers) expect(() => reader.samples(tile, 0, 4)).toThrow(SceneGone);
    tracer.lend(64).forEach((lent, i) => {
      expect(readers[i].has(lent)).toBe(true);
      readers[i].take(lent);
    });
    for (const reader of readers) expect(reader.samples(tile, 0, 4)).toEqual(alone(squares));
    expect(tracer.samples(tile, 0, 4)).toEqual(alone(squares));
  });

  it('stays for who reads it: the next is laid out elsewhere when it takes too long', () => {
    const tracer = new Tracer(2);
    tracer.load(balls, settings);
    const [lent] = tracer.lend(64);
    const reader = new BorrowedTracer(lent);
    const reading = new SceneLock(new Int32Array(lent.memory.memory.buffer, 0, 2));
    expect(reading.enter(lent.memory.scene)).toBe(true);
    tracer.load(squares, settings);
    const [next] = tracer.lend(64);
    expect(reader.has(next)).toBe(false);
    expect(next.memory.memory.buffer).not.toBe(lent.memory.memory.buffer);
    expect(new BorrowedTracer(next).samples(tile, 0, 4)).toEqual(alone(squares));
    // What it reads has not been written over.
    reader.take({ ...lent, memory: { ...lent.memory, scene: reading.scene } });
    expect(reader.samples(tile, 0, 4)).toEqual(alone(balls));
    reading.leave();
  });
});

describe('readers', () => {
  it('enter what is there, and no scene that has ended', () => {
    const readers = new SceneLock(new Int32Array(new SharedArrayBuffer(8)));
    const { scene } = readers;
    expect(readers.enter(scene)).toBe(true);
    expect(readers.end(1)).toBe(false);
    expect(readers.enter(scene)).toBe(false);
    readers.leave();
    expect(readers.end(1)).toBe(true);
    expect(readers.enter(scene)).toBe(false);
    expect(readers.enter(readers.scene)).toBe(true);
  });
});
