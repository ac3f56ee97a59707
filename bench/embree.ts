import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';

/** What rays are sent through: triangles, and matrices (12 numbers by rows) of the places where they stand; none for one. */
export interface RayScene {
  readonly points: Float32Array;
  readonly corners: Uint32Array;
  readonly matrices: Float32Array;
  /** Place and direction, 6 numbers a ray. */
  readonly rays: Float32Array;
}

/** Milliseconds of Embree, one thread: a tree, one refitted to other places, the first hits of all rays, whether there is any; and how many meet something. */
export interface Embree {
  readonly build: number;
  readonly refit: number;
  readonly first: number;
  readonly any: number;
  readonly hits: number;
}

/** The better time of each of two runs. */
export function fastest(a: Embree, b: Embree): Embree {
  return {
    build: Math.min(a.build, b.build),
    refit: Math.min(a.refit, b.refit),
    first: Math.min(a.first, b.first),
    any: Math.min(a.any, b.any),
    hits: a.hits,
  };
}

/** Embree from Debian (libembree-dev) on a scene; null, with a word, where it or a compiler is not installed. */
export function embree(scene: RayScene): Embree | null {
  if (!existsSync('/usr/include/embree3/rtcore.h')) {
    console.error('Embree is not installed: apt-get install libembree-dev g++. Rows against it are left out.');
    return null;
  }
  const folder = mkdtempSync(path.join(os.tmpdir(), 'maypole-embree-'));
  try {
    const program = path.join(folder, 'embree');
    const source = path.join(import.meta.dirname, 'embree.cpp');
    execFileSync('g++', ['-O3', '-march=native', source, '-lembree3', '-o', program], { stdio: 'pipe' });
    const file = path.join(folder, 'scene');
    const parts = [scene.points, scene.corners, scene.matrices, scene.rays].flatMap((list) => [
      Buffer.from(Uint32Array.of(list.length).buffer),
      Buffer.from(list.buffer, list.byteOffset, list.byteLength),
    ]);
    writeFileSync(file, Buffer.concat(parts));
    return JSON.parse(execFileSync(program, [file], { encoding: 'utf8' })) as Embree;
  } catch (error) {
    console.error(`Embree could not be run: ${(error as Error).message.split('\n')[0]}`);
    return null;
  } finally {
    rmSync(folder, { recursive: true });
  }
}
