import { affineOf, layersOf, OCTAVE_OFFSET, type NoiseSettings } from '@maypole/core/noise/noise';
import type { Layer, PatternAt } from '@maypole/core/pattern/pattern-at';
import type { ChannelPattern } from '@maypole/core/finish/surface';
import { alongRamp, layered, numbersOf, structureOf, withNumbers } from '@maypole/core/pattern/pattern-at';
import type { Hit, NoiseRead } from '@maypole/core/pattern/kind';
import { patterns } from '@maypole/core/pattern/kinds/index';
import { RAMP } from '@maypole/core/pattern/ramp';
import { wholePhase } from '@maypole/core/time/phase';
import type { Clock } from '@maypole/core/time/loop';
import { float, floor, Fn, int, Loop, mix, sRGBTransferOETF, texture, uniform, vec2, vec3, vec4 } from 'three/tsl';
import { Vector4, type TextureNode } from 'three/webgpu';
import { imageTexture } from '../effects/image-textures';
import { integer, rgb, scalar, type Int, type Rgb, type Scalar } from '../surfaces/tsl';
import { Tables } from './lattice-nodes';
import { GOES_ON, noiseNodes } from './noise-nodes';
import { PatternTables } from './noise-tables';
import { shaderMaths as m } from './shader-maths';

type Fill = (pattern: PatternAt) => void;

/** What the patterns of a surface are compiled for. */
export function patternsKey(list: readonly ChannelPattern[]): string {
  return list.map(({ channel, layers }) => `${channel}=${layers.map(structureOf).join('+')}`).join('|');
}

/** The patterns of a surface as shader nodes, and their uniforms. */
export class PatternNodes {
  private readonly rows = new PatternTables();
  private readonly tables = new Tables();
  private readonly fills = new Map<string, readonly Fill[]>();

  /** @param hit the surface point, as nodes */
  constructor(private readonly hit: Hit<Scalar>) {}

  /** A channel with its pattern; `even` without one. */
  number(pattern: ChannelPattern | undefined, even: Scalar): Scalar {
    return pattern ? scalar(this.compiled(pattern, even)) : even;
  }

  /** The same for a colour in linear light. */
  colour(pattern: ChannelPattern | undefined, even: Rgb): Rgb {
    return pattern ? rgb(this.compiled(pattern, scalar(even))) : even;
  }

  /** Sets the uniforms from a surface with the same structure. */
  update(list: readonly ChannelPattern[]): void {
    this.rows.begin();
    for (const { channel, layers } of list) this.fills.get(channel)?.forEach((fill, i) => fill(layers[i]));
    this.rows.end();
    this.tables.texture = this.rows.texture;
  }

  dispose(): void {
    this.rows.dispose();
  }

  /** Nodes of all layers of a channel; `even` decides between one number and three. */
  private compiled({ channel, layers }: ChannelPattern, even: Scalar): Scalar {
    const made = layers.map((p) => this.layer(p));
    this.fills.set(
      channel,
      made.map(({ fill }) => fill),
    );
    return layered(
      m,
      even,
      made.map(({ layer }) => layer),
    );
  }

  private layer(p: PatternAt): { layer: Layer<Scalar>; fill: Fill } {
    const kind = patterns.get(p.kind);
    const numbers = numbersOf(kind, p.values).map(() => uniform(0));
    const [amount, times, shift] = [uniform(0), uniform(1), uniform(0)];
    const noise = p.noise ? this.noise(p.noise) : null;
    const values = withNumbers<Scalar>(kind, p.values, numbers.map(scalar));
    const image = kind.image ? this.image(kind.image.at(m, this.hit, values)) : null;
    const plain = kind.height(m, this.hit, values, noise?.read ?? (() => image?.brightness ?? m.number(0)));
    const height = scalar(alongRamp(m, plain, scalar(times), scalar(shift), p.round).toVar());
    const shown = image && p.image?.own ? { to: () => scalar(image.light), fill: () => undefined } : this.shown(p);
    return {
      layer: { how: p.how, amount: scalar(amount), height, to: shown.to },
      fill: (now) => {
        numbersOf(kind, now.values).forEach((x, i) => (numbers[i].value = x));
        amount.value = now.amount;
        times.value = now.times;
        shift.value = now.shift;
        if (noise && now.noise) noise.fill(now.noise, now.clock);
        if (image && now.image) image.node.value = imageTexture(now.image.file);
        shown.fill(now);
      },
    };
  }

  /** A picture read at a position: its light, and its perceived brightness. */
  private image([u, v]: readonly [Scalar, Scalar]): { node: TextureNode; light: Rgb; brightness: Scalar } {
    const node = texture(imageTexture(''), vec2(u, v));
    const light = rgb(node.rgb.toVar());
    const grey = light.dot(vec3(0.2126, 0.7152, 0.0722));
    return { node: node as TextureNode, light, brightness: scalar(rgb(sRGBTransferOETF(vec3(grey))).x) };
  }

  private shown(p: PatternAt): { to(height: Scalar): Scalar; fill: Fill } {
    if (p.to.type === 'number') {
      const [low, high] = [uniform(0), uniform(1)];
      return {
        to: (h) => scalar(mix(low, high, h)),
        fill: ({ to }) => {
          if (to.type !== 'number') return;
          low.value = to.low;
          high.value = to.high;
        },
      };
    }
    const row = uniform(0);
    const read = (i: Scalar) => this.tables.read(integer(int(i)), integer(int(row)));
    return {
      to: (h) => {
        const x = h.mul(p.round ? RAMP : RAMP - 1).toVar();
        const i = floor(x)
          .min(RAMP - 1)
          .toVar();
        const next = p.round ? i.add(1).mod(RAMP) : i.add(1).min(RAMP - 1);
        return scalar(mix(read(scalar(i)).rgb, read(scalar(next)).rgb, x.sub(i)));
      },
      fill: ({ to }) => {
        if (to.type === 'colour') row.value = this.rows.ramp(to.ramp);
      },
    };
  }

  /** A noise as a function of position; octaves run in a loop, so that their number needs no recompilation. */
  private noise(first: NoiseSettings): { read: NoiseRead<Scalar>; fill(s: NoiseSettings, clock: Clock): void } {
    const kind = noiseNodes[first.kind];
    const metric = first.metric ?? 'euclidean';
    const rows = [0, 1, 2].map(() => uniform(new Vector4()));
    const [octaves, gain, lacunarity, total, tile, base] = Array.from({ length: 6 }, () => uniform(1));
    const [contrast, brightness, low, high, phase] = Array.from({ length: 5 }, () => uniform(0));
    const sum = Fn(([at]: [Rgb]) => {
      const place = vec4(at, 1);
      const p = vec3(place.dot(rows[0]), place.dot(rows[1]), place.dot(rows[2])).toVar();
      const value = float(0).toVar();
      const weight = float(1).div(total).toVar();
      const frequency = float(1).toVar();
      Loop({ start: int(0), end: int(octaves), type: 'int', condition: '<' }, ({ i }) => {
        const own = p.mul(frequency).add(vec3(...OCTAVE_OFFSET).mul(float(i)));
        const mask = int(
          float(tile)
            .mul(float(2).pow(float(i)))
            .min(256),
        ).sub(1) as Int;
        const tables = kind.tables.map((_, k) =>
          this.tables.at(integer(int(base).add(int(i).mul(kind.tables.length)).add(k).toVar())),
        );
        value.addAssign(kind.at(rgb(own.toVar()), tables, integer(mask.toVar()), scalar(phase), metric).mul(weight));
        weight.mulAssign(gain);
        frequency.mulAssign(lacunarity);
      });
      const folded = first.absolute ? value.abs() : value;
      const turned = first.invert ? folded.negate() : folded;
      return turned.mul(contrast).add(brightness).clamp(low, high);
    });
    return {
      read: ([x, y, z]) => scalar(sum(vec3(x, y, z))),
      fill: (s, clock) => {
        const { layers, tile: whole } = layersOf(s);
        const affine = affineOf(s, clock, whole);
        rows.forEach((row, r) => row.value.fromArray(affine, 4 * r));
        octaves.value = layers.length;
        gain.value = s.gain ?? 0.5;
        total.value = 1 / layers[0].weight;
        lacunarity.value = layers.length > 1 ? layers[1].frequency : 2;
        tile.value = layers[0].mask + 1;
        base.value = this.rows.noise(s, clock);
        contrast.value = s.contrast;
        brightness.value = s.brightness;
        low.value = s.low;
        high.value = s.high;
        phase.value = GOES_ON.has(s.kind) && s.rate !== 0 ? wholePhase(Math.max(1, Math.round(s.rate)), clock) : 0;
      },
    };
  }
}
