import { describe, expect, it } from 'vitest';
import { displayToLight, hexToDisplay } from '../../maths/srgb';
import type { LightAt } from '../../scene/kind';
import { meshOf } from '../../shape/builder';
import { uniformConnectivity } from '../../shape/mesh';
import { meanOf, pictureOf } from '../fixture';
import { radiosity, type Face } from '../../fixtures/radiosity';
import { bouncesOf } from '../paths/tracer';
import { AT_LENGTH } from '../../fixtures/effort';

/*
 * The box of Cornell University’s Program of Computer Graphics, whose measurements are published (“The Cornell Box”:
 * places in millimetres, reflectances, where the camera stood), from memory; colours as they are commonly given for
 * red, green and blue, which is common practice. What light comes to in it is solved by radiosity here.
 */
const WHITE = [0.725, 0.71, 0.68];
const RED = [0.63, 0.065, 0.05];
const GREEN = [0.14, 0.45, 0.091];

/**
 * Patches of walls and of faces of blocks, each way; and of the floor, which has more: those a block stands on in part
 * are taken to be dark, or not.
 */
const [WALLS, BLOCKS, BELOW] = [8, 4, 20];

type Corner = readonly [number, number, number];
const face = (albedo: readonly number[], patches: number, ...corners: Corner[]) => ({
  albedo,
  patches,
  corners,
  // Walls stand between nothing; blocks are in fewer pieces.
  shades: patches < WALLS,
});
/** The top of a block, its corners as they are published, and its four sides down to the floor. */
function block(height: number, ...top: (readonly [number, number])[]) {
  const at = ([x, z]: readonly [number, number], y: number): Corner => [x, y, z];
  const sides = top.map((a, i) => {
    const b = top[(i + 1) % 4];
    return face(WHITE, BLOCKS, at(a, height), at(a, 0), at(b, 0), at(b, height));
  });
  return [
    face(WHITE, BLOCKS, at(top[0], height), at(top[1], height), at(top[2], height), at(top[3], height)),
    ...sides,
  ];
}
const [FLOOR, CEILING, BACK, RIGHT, LEFT, SHORT, TALL] = [0, 1, 2, 3, 4, 5, 10];
const published = [
  face(WHITE, BELOW, [552.8, 0, 0], [0, 0, 0], [0, 0, 559.2], [549.6, 0, 559.2]),
  face(WHITE, WALLS, [556, 548.8, 0], [556, 548.8, 559.2], [0, 548.8, 559.2], [0, 548.8, 0]),
  face(WHITE, WALLS, [549.6, 0, 559.2], [0, 0, 559.2], [0, 548.8, 559.2], [556, 548.8, 559.2]),
  face(GREEN, WALLS, [0, 0, 559.2], [0, 0, 0], [0, 548.8, 0], [0, 548.8, 559.2]),
  face(RED, WALLS, [552.8, 0, 0], [549.6, 0, 559.2], [556, 548.8, 559.2], [556, 548.8, 0]),
  ...block(165, [130, 65], [82, 225], [240, 272], [290, 114]),
  ...block(330, [423, 247], [265, 296], [314, 456], [472, 406]),
];
const lamp: readonly Corner[] = [
  [343, 548.8, 227],
  [343, 548.8, 332],
  [213, 548.8, 332],
  [213, 548.8, 227],
];
const GLOW = 10;

const hex = (albedo: readonly number[]) =>
  `#${albedo
    .map((light) =>
      Math.round(255 * (light <= 0.0031308 ? 12.92 * light : 1.055 * light ** (1 / 2.4) - 0.055))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
/** Colours are written in eight bits a channel. */
const written = (albedo: readonly number[]) => hexToDisplay(hex(albedo)).map(displayToLight);

// Many samples: a simpler box is among the closed forms of outside.test.
describe.runIf(AT_LENGTH)('the box of the literature', () => {
  it('is as bright as radiosity solves it: in the open, between the blocks, in their shadows and on them', () => {
    const faces: readonly Face[] = [
      ...published.map((f) => ({ ...f, albedo: written(f.albedo), glow: 0 })),
      { corners: lamp, albedo: [0, 0, 0], glow: GLOW, patches: 6 },
    ];
    const solved = radiosity(faces);
    const metres = (p: readonly number[]) => p.map((x) => x / 1000) as [number, number, number];
    const shapes = published.map(({ corners, albedo }) => ({
      mesh: meshOf(uniformConnectivity(4, 4, Uint32Array.of(0, 1, 2, 3)), Float32Array.from(corners.flatMap(metres))),
      surface: { roughness: 1, specular: 0, baseColor: hex(albedo) },
    }));
    const area: LightAt = {
      type: 'area',
      radiance: GLOW,
      at: metres([278, 548.7, 279.5]),
      target: metres([278, 0, 279.5]),
      width: 0.13,
      height: 0.105,
      turn: 0,
      seen: false,
      colour: [1, 1, 1],
      shadow: true,
    };
    const seen = (place: readonly number[]) => {
      const view = { position: metres([278, 273, -800]), target: metres(place), focalLength: 8000 };
      return meanOf(pictureOf(shapes, [area], view), 2048, { bounces: bouncesOf(24), width: 6, height: 6 });
    };
    const places: readonly (readonly [string, number, readonly [number, number, number]])[] = [
      ['the floor, in the open', FLOOR, [420, 0, 120]],
      ['the floor, by the red wall', FLOOR, [530, 0, 60]],
      ['the floor, in the shadow of the short block', FLOOR, [60, 0, 120]],
      ['the ceiling', CEILING, [120, 548.8, 120]],
      ['the wall behind', BACK, [180, 420, 559.2]],
      ['the wall behind, between block and red wall', BACK, [520, 200, 559.2]],
      ['the green wall', RIGHT, [0, 300, 200]],
      ['the red wall', LEFT, [554, 300, 100]],
      ['the top of the short block', SHORT, [190, 165, 160]],
      ['the short block, towards the eye', SHORT + 4, [210, 80, 89.5]],
      ['the tall block, towards the eye', TALL + 1, [344, 200, 271.5]],
    ];
    for (const [name, at, place] of places) {
      const [mean, own] = [seen(place), solved(at, place)];
      for (let k = 0; k < 3; k++) expect(Math.abs(mean[k] / own[k] - 1), `${name}: ${k}`).toBeLessThan(0.02);
    }
  });
});
