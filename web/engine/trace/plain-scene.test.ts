import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { sceneAt } from '@maypole/core/evaluate/picture-at';
import { readPiece } from '@maypole/core/piece/read';
import { expect, it } from 'vitest';
import { plainScene } from './plain-scene';

const folder = path.join(import.meta.dirname, '../../../demo');

it.each(readdirSync(folder))('%s keeps its lights and loses what costs most', (name) => {
  const read = readPiece(readFileSync(path.join(folder, name), 'utf8'));
  if (!read.ok) throw new Error(read.message);
  const scene = sceneAt(read.piece, 7);
  const plain = plainScene(scene);
  expect(plain.lights.map((l) => l.type)).toEqual(scene.lights.map((l) => l.type));
  expect(plain.lights.some((l) => ('shadow' in l && l.shadow) || 'shade' in l)).toBe(false);
  expect([plain.ground, plain.air, plain.picture]).toEqual([[], [], []]);
  expect([plain.camera.lensRadius, plain.camera.shutter]).toEqual([0, 0]);
  expect(plain.camera.position).toEqual(scene.camera.position);
  expect(plain.backdrop).toBe(scene.backdrop);
});
