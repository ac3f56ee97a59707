import { channelOf } from '@maypole/core/finish/part';
import { finishParts } from '@maypole/core/finish/parts/index';
import { patternAt } from '@maypole/core/finish/pattern-of';
import { noises } from '@maypole/core/noise/kinds/index';
import { patterns } from '@maypole/core/pattern/kinds/index';
import { layerParams } from '@maypole/core/pattern/layer';
import { newItem } from '@maypole/core/piece/piece';
import type { CopyChannels } from '@maypole/core/shape/copy-channels';
import { PLAIN_SURFACE, type Surface } from '@maypole/core/finish/surface';
import type { Material, Mesh } from 'three/webgpu';
import { describe, expect, it } from 'vitest';
import type { Drawable, DrawablePart, Instances } from '../stage/frame';
import { RibbonMaterials } from '../surfaces/ribbon-materials';
import { RibbonObject } from './ribbon-object';
import { structureKey } from '../surfaces/surface-material';

/** A triangle, under names of its shape and its connectivity. */
function part(key: string, topology = 'three', instances?: Instances): DrawablePart {
  return {
    key,
    topology: {
      key: topology,
      triangles: Uint32Array.of(0, 1, 2),
      edges: Uint32Array.of(0, 1, 1, 2, 2, 0),
      lines: new Uint32Array(),
      groups: [{ slot: 0, start: 0, count: 3 }],
      closed: false,
    },
    positions: Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0),
    normals: Float32Array.of(0, 0, 1, 0, 0, 1, 0, 0, 1),
    instances,
  };
}

const drawable = (...parts: DrawablePart[]): Drawable => ({ key: parts.map((p) => p.key).join(), parts });

function copies(count: number, channels?: CopyChannels): Instances {
  const matrices = new Float32Array(16 * count);
  for (let i = 0; i < count; i++) matrices.set([1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, i, 0, 0, 1], 16 * i);
  return {
    matrices,
    numbers: Uint32Array.from({ length: count }, (_, i) => i),
    order: new Float32Array(count),
    ids: new Uint32Array(count),
    channels,
  };
}

const surfaces = (of: Partial<Surface> = {}) => ({ 0: { ...PLAIN_SURFACE, ...of } });

function shown(object: RibbonObject, shape: Drawable, of: Partial<Surface> = {}, mode: 'shaded' | 'clay' = 'shaded') {
  object.update({ id: 'a', shape, surfaces: surfaces(of) }, new Map(), mode);
  return object.objects.map((o) => o.mesh as Mesh);
}

const materialOf = (mesh: Mesh) => (Array.isArray(mesh.material) ? mesh.material[0] : mesh.material) as Material;

/** Counts how often things are let go on the graphics device. */
function watch(...things: { addEventListener(name: 'dispose', f: () => void): void }[]): () => number {
  let gone = 0;
  for (const t of things) t.addEventListener('dispose', () => gone++);
  return () => gone;
}

const from = { copies: false, uv: false, crevice: false };
const rough = channelOf(finishParts.get('base'), 'roughness')!;

describe('the materials of a ribbon', () => {
  it('are compiled by structure: a number changes none, channels of copies and open borders make another', () => {
    const materials = new RibbonMaterials();
    const closed = { closed: true, channels: [] as const, from };
    const first = materials.of(0, closed).material;
    const version = first.version;
    materials.update(surfaces({ baseColor: '#ff0000', roughness: 0.3, metalness: 1 }), 'shaded');
    expect(materials.of(0, closed).material).toBe(first);
    expect(first.version).toBe(version);
    expect(materials.of(0, { closed: false, channels: [], from }).material).not.toBe(first);
    const tinted = materials.of(0, { closed: true, channels: ['baseColor'], from }).material;
    expect(tinted).not.toBe(first);
    // In clay copies have no colours of their own.
    expect(materials.update(surfaces(), 'clay')).toBe('with channels');
    expect(materials.of(0, { closed: true, channels: ['baseColor'], from }).material).toBe(first);
  });

  it('have a key that tells every structure from every other', () => {
    const lists = [
      [],
      ['baseColor'],
      ['roughness'],
      ['metalness'],
      ['baseColor', 'roughness'],
      ['baseColor', 'roughness', 'metalness'],
    ] as const;
    const keys = lists.flatMap((channels) =>
      [true, false].flatMap((closed) =>
        ([[], ['coat'], ['glass', 'coat']] as const).flatMap((features) =>
          [true, false].map((additive) =>
            structureKey({ closed, channels, features, additive, grooves: PLAIN_SURFACE.grooves, patterns: [], from }),
          ),
        ),
      ),
    );
    expect(new Set(keys).size).toBe(72);
  });

  it('are others where a part of the finish is switched on, and stay while its values move', () => {
    const materials = new RibbonMaterials();
    const plain = materials.of(0, { closed: true, channels: [], from }).material;
    const coated = (clearcoat: number) => surfaces({ clearcoat, features: ['coat'] });
    expect(materials.update(coated(1), 'shaded')).toBe('all');
    const lacquer = materials.of(0, { closed: true, channels: [], from }).material;
    expect(lacquer).not.toBe(plain);
    const { version } = lacquer;
    expect(materials.update(coated(0), 'shaded')).toBe('none');
    expect(materials.of(0, { closed: true, channels: [], from }).material).toBe(lacquer);
    expect(lacquer.version).toBe(version);
    // Clay has no parts.
    expect(materials.update(coated(1), 'clay')).toBe('all');
    expect(materials.of(0, { closed: true, channels: [], from }).material).toBe(plain);
  });

  it('keep a few of the patterns that were tried, and let the oldest go', () => {
    const materials = new RibbonMaterials();
    const doc = (noise: string) => ({
      ...newItem({ kind: 'noise', params: layerParams(patterns.get('noise'), rough.target) }, { noise } as never),
      of: 'roughness',
    });
    const kinds = noises.all.map((k) => k.kind).slice(0, 12);
    const made = kinds.map((kind) => {
      const layer = patternAt(doc(kind), rough.target, 0.01, { frame: 0, frames: 10 });
      materials.update(surfaces({ patterns: [{ channel: 'roughness', layers: [layer] }] }), 'shaded');
      return materials.of(0, { closed: true, channels: [], from }).material;
    });
    expect(new Set(made).size).toBe(12);
    const again = (kind: string) => {
      const layer = patternAt(doc(kind), rough.target, 0.01, { frame: 3, frames: 10 });
      materials.update(surfaces({ patterns: [{ channel: 'roughness', layers: [layer] }] }), 'shaded');
      return materials.of(0, { closed: true, channels: [], from }).material;
    };
    expect(again(kinds[11])).toBe(made[11]);
    expect(again(kinds[9])).toBe(made[9]);
    expect(made).not.toContain(again(kinds[0]));
    materials.dispose();
  });

  it('are let go with the ribbon, all of them', () => {
    const materials = new RibbonMaterials();
    const made = [
      materials.of(0, { closed: true, channels: [], from }).material,
      materials.of(1, { closed: false, channels: ['roughness'], from }).material,
      materials.line,
      materials.curve,
    ];
    const gone = watch(...made);
    materials.dispose();
    expect(gone()).toBe(4);
  });
});

describe('the objects of a ribbon', () => {
  it('are found again by what they show, whatever their order', () => {
    const ribbon = new RibbonObject();
    const [a, b] = shown(ribbon, drawable(part('a'), part('b')));
    expect(shown(ribbon, drawable(part('b'), part('a')))).toEqual([b, a]);
    expect(a).not.toBe(b);
  });

  it('take in new positions where the connectivity is the same, and are made anew where it is not', () => {
    const ribbon = new RibbonObject();
    const [mesh] = shown(ribbon, drawable(part('a')));
    const gone = watch(mesh.geometry);
    const moved = part('a2');
    expect(shown(ribbon, drawable(moved))).toEqual([mesh]);
    expect(mesh.geometry.attributes.position.array).toBe(moved.positions);
    expect(gone()).toBe(0);
    const [other] = shown(ribbon, drawable(part('b', 'four')));
    expect(other).not.toBe(mesh);
    expect(gone()).toBe(1);
    expect(ribbon.group.children).toHaveLength(1);
  });

  it('have room to spare for copies: a stream that swells a little is drawn by the same, and shows as many as there are', () => {
    const ribbon = new RibbonObject();
    const [mesh] = shown(ribbon, drawable(part('a', 'three', copies(20))));
    expect((mesh as Mesh & { count: number }).count).toBe(20);
    expect(shown(ribbon, { ...drawable(part('a', 'three', copies(24))), key: 'later' })).toEqual([mesh]);
    expect((mesh as Mesh & { count: number }).count).toBe(24);
    expect(shown(ribbon, { ...drawable(part('a', 'three', copies(400))), key: 'many' })).not.toEqual([mesh]);
  });

  it('bring channels of copies, with a mark for those that have none of their own', () => {
    const ribbon = new RibbonObject();
    const roughness = Float32Array.of(0.25, Number.NaN, 0.75);
    const [mesh] = shown(ribbon, drawable(part('a', 'three', copies(3, { roughness }))));
    const told = mesh.geometry.attributes.copyRoughness;
    const rows = [0, 1, 2].map((i) => [told.array[2 * i], told.array[2 * i + 1]]);
    expect(rows[0]).toEqual([0.25, 1]);
    expect(rows[1][1]).toBe(0);
    expect(rows[2]).toEqual([0.75, 1]);
  });

  it('wear the finish of another ribbon where their copies do', () => {
    const ribbon = new RibbonObject();
    const own = part('a');
    const worn = part('b', 'three', { ...copies(2), materialRibbon: 'other' });
    const [first, second] = shown(ribbon, drawable(own, worn));
    expect(materialOf(first)).not.toBe(materialOf(second));
  });

  it('are let go whole', () => {
    const ribbon = new RibbonObject();
    const meshes = shown(ribbon, drawable(part('a'), part('b', 'four', copies(3))));
    const gone = watch(...meshes.map((m) => m.geometry), ...meshes.map(materialOf));
    ribbon.dispose();
    expect(gone()).toBe(4);
    expect(ribbon.group.children).toHaveLength(0);
  });
});
