import { flattened } from '@maypole/core/copies/copies';
import { form, step } from '@maypole/core/fixtures/forms';
import { boundsOf } from '@maypole/core/shape/measure';
import { drawBuffers, drawTopologyOf } from '@maypole/core/shape/drawable';
import type { Mesh } from '@maypole/core/shape/mesh';
import { describe, expect, it } from 'vitest';
import { boxOf } from './box';
import { instancesOf } from '../evaluate/instances';
import type { RibbonGeometry } from '../evaluate/loop-cache';
import { lookAt, pickCopy, pickPoint } from './pick';

/** What the engine would keep of a shape with copies. */
function geometry(mesh: Mesh): RibbonGeometry {
  const copies = mesh.copies!;
  const parts = instancesOf(copies).map(({ source, instances }) => {
    const shape = copies.sources[source];
    const draw = drawTopologyOf(shape.connectivity);
    return {
      key: `${source}`,
      topology: {
        key: `${source}`,
        vertexCount: draw.vertexCount,
        triangles: draw.triangles,
        edges: draw.edges,
        lines: draw.lines,
        groups: draw.groups,
        faces: 1,
        closed: true,
      },
      ...drawBuffers(shape),
      instances,
    };
  });
  return {
    key: 'k',
    parts,
    facts: {
      count: copies.source.length,
      places: copies.places,
      order: copies.order,
      ...(copies.late ? { late: copies.late } : {}),
    },
    problems: [],
    notes: [],
  };
}

const line = step('repeat-line', form('geodesic', { frequency: 4, radius: 0.3 }), { count: 5, way: [1, 0, 0] });

describe('choosing a copy', () => {
  it('finds the copy a line of sight meets, the nearest first, and none beside them', () => {
    const shape = geometry(line);
    for (let i = 0; i < 5; i++) expect(pickCopy(shape, [i - 2, 0, 8], [0, 0, -1])?.number).toBe(i);
    expect(pickCopy(shape, [0, 0, 8], [0, 0, -1])!.distance).toBeCloseTo(7.7, 1);
    expect(pickCopy(shape, [0.5, 0, 8], [0, 0, -1])).toBeNull();
    expect(pickCopy(shape, [-8, 0, 0], [1, 0, 0])?.number).toBe(0);
    expect(pickCopy(shape, [8, 0, 0], [-1, 0, 0])?.number).toBe(4);
  });
  it('agrees with the faces of all copies made one, for turned and sized ones, ray by ray', () => {
    const many = step(
      'vary',
      step(
        'vary',
        step('repeat-grid', form('box', { segments: 1, size: [0.3, 0.2, 0.1] }), {
          columns: 4,
          layers: 3,
          rows: 4,
          spacing: [0.5, 0.5, 0.5],
        }),
        { what: 'turn', by: 'chance', turnTo: [300, 200, 100] },
      ),
      { what: 'size', by: 'chance', sizeFrom: 0.5, sizeTo: 2, seed: 4 },
    );
    const shape = geometry(many);
    const whole: RibbonGeometry = {
      ...shape,
      parts: [
        {
          ...geometry({
            ...line,
            copies: {
              ...line.copies!,
              sources: [flattened(many)],
              source: new Uint16Array(1),
              matrices: Float32Array.from([1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]),
            },
          }).parts[0],
        },
      ],
    };
    let hits = 0;
    for (let i = 0; i < 200; i++) {
      const [a, b] = [i * 2.4, i * 0.37];
      const from = [3 * Math.cos(a), Math.sin(b), 3 * Math.sin(a)] as const;
      const way = from.map((x, k) => 0.2 * Math.sin(i + k) - x) as [number, number, number];
      const [one, all] = [pickCopy(shape, from, way), pickCopy(whole, from, way)];
      expect(one === null).toBe(all === null);
      if (one && all) {
        expect(one.distance).toBeCloseTo(all.distance, 4);
        hits++;
      }
    }
    expect(hits).toBeGreaterThan(60);
  });
  it('reads off what a copy has of its own', () => {
    const varied = step('vary', step('vary', line, { what: 'colour', colourFrom: '#ff0000', colourTo: '#0000ff' }), {
      what: 'size',
      sizeFrom: 1,
      sizeTo: 2,
    });
    const look = lookAt(geometry(varied), 4)!;
    expect(look).toMatchObject({ number: 4, count: 5, place: 5, places: 5, late: 0, colour: '#0000ff', shapes: 1 });
    expect(look.at[0]).toBeCloseTo(2, 6);
    expect(look.size[0]).toBeCloseTo(2, 5);
    expect(lookAt(geometry(varied), 5)).toBeNull();
  });
  it('the box of a part holds all places where it stands', () => {
    const [part] = geometry(line).parts;
    const box = boundsOf(flattened(line).positions)!;
    boxOf(part).max.forEach((m, k) => expect(m).toBeCloseTo(box.max[k], 5));
    expect(boxOf({ positions: new Float32Array(0) }).min[0]).toBe(Infinity);
  });
});

describe('copies sorted for drawing', () => {
  it('each is there once, under its source, with its own matrix, number and colour', () => {
    const mixed = step('vary', line, { what: 'colour' });
    const copies = {
      ...mixed.copies!,
      sources: [...mixed.copies!.sources, form('box'), form('torus')],
      source: Uint16Array.from([0, 2, 0, 2, 2]),
    };
    const sorted = instancesOf(copies);
    expect(sorted.map((s) => [s.source, [...s.instances.numbers]])).toEqual([
      [0, [0, 2]],
      [2, [1, 3, 4]],
    ]);
    expect([...sorted[1].instances.matrices.subarray(16, 32)]).toEqual([...copies.matrices.subarray(48, 64)]);
    expect(sorted.map((s) => s.instances.materialRibbon)).toEqual([undefined, undefined]);
    const dressed = instancesOf({
      ...copies,
      materialIndices: Uint8Array.from([0, 2, 1, 0, 2]),
      materialRibbons: ['b', 'c'],
    });
    expect(dressed.map((s) => [s.source, s.instances.materialRibbon, [...s.instances.numbers]])).toEqual([
      [0, undefined, [0]],
      [0, 'b', [2]],
      [2, undefined, [3]],
      [2, 'c', [1, 4]],
    ]);
    expect([...sorted[1].instances.channels!.baseColor!.subarray(6, 9)]).toEqual([
      ...copies.channels!.baseColor!.subarray(12, 15),
    ]);
  });
});

describe('a point of a form', () => {
  const triangle = (z: number) => {
    const positions = Float32Array.of(-1, -1, z, 1, -1, z, 0, 1, z);
    const normals = Float32Array.of(0, 0, 1, 0, 0, 1, 0, 0, 1);
    const topology = { key: 't', triangles: Uint32Array.of(0, 1, 2) };
    return { key: `${z}`, topology, positions, normals } as never;
  };
  const shape = (...parts: never[]) => ({ key: 's', parts }) as never;
  it('is the nearest along the line of sight, with the side of its normal that is seen', () => {
    const hit = pickPoint(shape(triangle(0), triangle(1)), [0, 0, 5], [0, 0, -2])!;
    expect(hit.distance).toBeCloseTo(2, 9);
    expect(hit.at).toEqual([0, 0, 1]);
    expect(hit.normal).toEqual([0, 0, 1]);
    const behind = pickPoint(shape(triangle(0)), [0, 0, -5], [0, 0, 1])!;
    behind.normal.forEach((x, k) => expect(x).toBeCloseTo([0, 0, -1][k], 12));
    expect(pickPoint(shape(triangle(0)), [4, 0, 5], [0, 0, -1])).toBeNull();
  });
  it('of a copy is where the copy stands, its normal turned with it', () => {
    // A quarter turn about y, twice as large, moved.
    const matrices = Float32Array.of(0, 0, -2, 0, 0, 2, 0, 0, 2, 0, 0, 0, 3, 0, 0, 1);
    const part = { ...(triangle(0) as object), instances: { matrices, numbers: Uint32Array.of(0) } } as never;
    const hit = pickPoint(shape(part), [9, 0, 0], [-1, 0, 0])!;
    expect(hit.at[0]).toBeCloseTo(3, 6);
    hit.normal.forEach((x, k) => expect(x).toBeCloseTo([1, 0, 0][k], 6));
  });
});
