import { asset, choice, mapParams, number } from '../../declare/params';
import { noiseKinds } from '../../noise/kinds/index';
import { noiseMoves, noiseParams } from '../../noise/noise-params';
import { curlNoise, noiseAt, noisePlaces, NoSurface, vectorNoise } from '../../noise/sample';
import type { Mesh } from '../../shape/mesh';
import { vertexNormals } from '../../shape/normals';
import { brief, defineStep, StepProblem, type StepContext } from '../step';
import { heightAt } from './picture';
import { limited, regionMoves, regionParams } from './region';

const kindTitle = new Map(noiseKinds.map((k) => [k.kind as string, k.title]));
const NOISE = { shownWhen: { param: 'by', is: ['noise'] } } as const;

/** Rows of a noise, shown where noise displaces. */
const noiseRows = mapParams(noiseParams, (p) => (p.shownWhen ? p : { ...p, ...NOISE }));

/** Moves every vertex by a looping noise at its position, or by a picture mapped onto the form. */
export const displace = defineStep({
  kind: 'displace',
  title: 'Displace',
  help: 'Pushes the surface in and out by noise or by a picture.',
  icon: 'displace',
  group: 'deform',
  carries: 'shift',
  params: {
    height: number('Height', 0.3, 'How far a noise of 1 moves a point.', {
      unit: 'm',
      min: -100,
      max: 100,
      soft: [-1, 1],
      step: 0.01,
    }),
    direction: choice(
      'Direction',
      'normal',
      [
        { value: 'normal', title: 'Normal' },
        { value: 'radial', title: 'Radial' },
        { value: 'x', title: 'X' },
        { value: 'y', title: 'Y' },
        { value: 'z', title: 'Z' },
        { value: 'vector', title: 'Every way' },
        { value: 'curl', title: 'Current' },
      ],
      'Along the surface normal, away from the origin, along an axis, every way by three noises, or with a ' +
        'current that neither gathers nor thins out (curl).',
    ),
    by: choice(
      'By',
      'noise',
      [
        { value: 'noise', title: 'Noise' },
        { value: 'picture', title: 'Picture' },
      ],
      'What moves the points.',
    ),
    picture: asset(
      'Picture',
      'picture',
      'Middle grey leaves a point where it is; white moves it by the height, black the other way.',
      { shownWhen: { param: 'by', is: ['picture'] } },
    ),
    laid: choice(
      'Laid',
      'surface',
      [
        { value: 'surface', title: 'On the surface' },
        { value: 'x', title: 'Along X' },
        { value: 'y', title: 'Along Y' },
        { value: 'z', title: 'Along Z' },
      ],
      'How the picture lies: on the surface (UV), or through the form along an axis.',
      { shownWhen: { param: 'by', is: ['picture'] } },
    ),
    pictureSize: number('Picture size', 2, 'Width of the picture where it is laid along an axis.', {
      unit: 'm',
      min: 0.001,
      max: 1000,
      soft: [0.2, 6],
      shownWhen: { param: 'by', is: ['picture'] },
    }),
    ...noiseRows,
    ...regionParams,
  },
  summary: (v) => `${v.by === 'picture' ? 'picture' : (kindTitle.get(v.noise) ?? v.noise)} · ${brief(v.height)} m`,
  reads: { clock: (v) => ((v.by === 'noise' && noiseMoves(v)) || regionMoves(v)) && v.height !== 0 },
  evaluate(v, input, context) {
    if (v.height === 0) return input;
    const from = input.positions;
    const to = new Float32Array(from);
    const { direction, height } = v;
    if (v.by === 'noise' && (direction === 'vector' || direction === 'curl')) {
      const { points, settings } = onSurface(() => noisePlaces(v, input));
      const field = (direction === 'vector' ? vectorNoise : curlNoise)(settings, context.clock, points);
      for (let i = 0; i < from.length; i++) to[i] += height * field[i];
      return { connectivity: input.connectivity, positions: limited(v, input, to, context) };
    }
    const values =
      v.by === 'picture' ? pictureValues(v, input, context) : onSurface(() => noiseAt(v, input, context.clock));
    if (direction === 'x' || direction === 'y' || direction === 'z') {
      const s = { x: 0, y: 1, z: 2 }[direction];
      for (let i = 0; i < values.length; i++) to[3 * i + s] += height * values[i];
    } else {
      const radial = direction === 'radial';
      const normals = radial ? from : vertexNormals(input.connectivity, from);
      for (let i = 0, j = 0; i < values.length; i++, j += 3) {
        let h = height * values[i];
        if (radial) h /= Math.sqrt(from[j] * from[j] + from[j + 1] * from[j + 1] + from[j + 2] * from[j + 2]) || 1;
        to[j] += h * normals[j];
        to[j + 1] += h * normals[j + 1];
        to[j + 2] += h * normals[j + 2];
      }
    }
    return { connectivity: input.connectivity, positions: limited(v, input, to, context) };
  },
});

function onSurface<T>(make: () => T): T {
  try {
    return make();
  } catch (error) {
    if (error instanceof NoSurface) throw new StepProblem(error.message);
    throw error;
  }
}

function pictureValues(
  v: { picture: string; laid: 'surface' | 'x' | 'y' | 'z'; pictureSize: number },
  input: Mesh,
  context: StepContext,
): Float32Array {
  if (v.picture === '') throw new StepProblem('Displace has no picture yet; choose one.');
  const asset = context.asset?.(v.picture);
  if (!asset || asset.type !== 'picture')
    throw new StepProblem('The picture is not here yet; if this stays, choose it again.');
  return onSurface(() => heightAt(asset.picture, v.laid, v.pictureSize, input));
}
