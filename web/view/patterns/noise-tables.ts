import { identityOf } from '@maypole/core/maths/identity';
import { featurePoints } from '@maypole/core/noise/feature-points';
import { gradientTable } from '@maypole/core/noise/gradients';
import { latticeValues } from '@maypole/core/noise/lattice-values';
import { layersOf, type NoiseSettings } from '@maypole/core/noise/noise';
import { permutation } from '@maypole/core/noise/permutation';
import type { Clock } from '@maypole/core/time/loop';
import { DataTexture, FloatType, NearestFilter, RGBAFormat } from 'three/webgpu';
import { RAMP } from '@maypole/core/pattern/ramp';
import { noiseNodes, type TableOf } from './noise-nodes';

/** Width of the texture: entries of a lattice table, and of a ramp. */
const WIDTH = 256;

/**
 * The tables of all noises and ramps of a surface, as rows of one texture, because texture units are few. They are
 * small, and uploaded when they change.
 */
export class PatternTables {
  texture = new DataTexture(new Float32Array(4 * WIDTH), WIDTH, 1, RGBAFormat, FloatType);
  private next: { readonly key: string; readonly fill: (row: Float32Array) => void }[] = [];
  private filled: string[] = [];

  /** Begins a new set of rows. */
  begin(): void {
    this.next = [];
  }

  /** Adds rows for the octaves of a noise; returns the index of the first. */
  noise(settings: NoiseSettings, clock: Clock): number {
    const first = this.next.length;
    const { tables } = noiseNodes[settings.kind];
    const { rate } = settings;
    const moment = rate === 0 ? '' : `${clock.frame}/${clock.frames}/${clock.loops ?? 0}`;
    for (const layer of layersOf(settings).layers)
      for (const { of, seed } of tables) {
        const own = seed(layer.seed);
        const jitter = settings.jitter ?? 1;
        const key = `${of}/${own}/${rate}/${moment}/${of.endsWith('points') ? jitter : ''}`;
        this.next.push({ key, fill: (row) => fillTable(row, of, own, rate, jitter, clock) });
      }
    return first;
  }

  /** Adds a row for a colour ramp; returns its index. */
  ramp(colours: Float32Array): number {
    this.next.push({
      key: `ramp/${identityOf(colours)}`,
      fill(row) {
        for (let i = 0; i < RAMP; i++) for (let k = 0; k < 3; k++) row[4 * i + k] = colours[3 * i + k];
      },
    });
    return this.next.length - 1;
  }

  /** Writes what has changed; the texture may be a new one afterwards. */
  end(): void {
    const rows = Math.max(1, this.next.length);
    const grown = rows > this.texture.image.height;
    if (grown) {
      this.texture.dispose();
      // Some spare rows: octaves come and go.
      const height = 2 ** Math.ceil(Math.log2(rows));
      this.texture = new DataTexture(new Float32Array(4 * WIDTH * height), WIDTH, height, RGBAFormat, FloatType);
      this.texture.minFilter = this.texture.magFilter = NearestFilter;
      this.filled = [];
    }
    const data = this.texture.image.data as Float32Array;
    let changed = false;
    this.next.forEach(({ key, fill }, i) => {
      if (this.filled[i] === key) return;
      fill(data.subarray(4 * WIDTH * i, 4 * WIDTH * (i + 1)));
      this.filled[i] = key;
      changed = true;
    });
    if (changed) this.texture.needsUpdate = true;
  }

  dispose(): void {
    this.texture.dispose();
  }
}

/** See Table in lattice-nodes: the permutation of i, then what belongs to p[i]. */
function fillTable(row: Float32Array, of: TableOf, seed: number, rate: number, jitter: number, clock: Clock): void {
  const p = permutation(seed);
  if (of === 'levels' || of === 'values') {
    const values = latticeValues(seed, rate, clock);
    for (let i = 0; i < WIDTH; i++) {
      row[4 * i] = p[i];
      row[4 * i + 1] = values[of === 'levels' ? i : p[i]];
    }
    return;
  }
  const table =
    of === 'gradients'
      ? gradientTable(seed, rate, clock)
      : featurePoints(seed, of === 'points' ? rate : 0, clock, jitter);
  for (let i = 0; i < WIDTH; i++) {
    row[4 * i] = p[i];
    for (let k = 0; k < 3; k++) row[4 * i + 1 + k] = table[3 * p[i] + k];
  }
}
