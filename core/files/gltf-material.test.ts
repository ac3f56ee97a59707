import { WebIO } from '@gltf-transform/core';
import { KHRONOS_EXTENSIONS } from '@gltf-transform/extensions';
import { describe, expect, it } from 'vitest';
import { surfaceOf } from '../finish/finish';
import { finishParts } from '../finish/parts/index';
import { presetFinish, presets } from '../finish/presets';
import type { Surface } from '../finish/surface';
import { displayToLight } from '../maths/srgb';
import { newItem, type FinishDoc } from '../piece/piece';
import { gltfMaterial } from './gltf-material';

const clock = { frame: 0, frames: 50 };
const finish = (parts: Record<string, object>): FinishDoc => ({
  id: 'f',
  of: 'main',
  on: true,
  parts: Object.entries(parts).map(([kind, values]) => newItem(finishParts.get(kind), values as never)),
});

/** A file with one material, read by another library of the registry. */
async function readBack(surface: Surface) {
  const { material, extensions } = gltfMaterial('Finish', surface);
  const json = { asset: { version: '2.0' }, materials: [material], extensionsUsed: extensions };
  const io = new WebIO().registerExtensions(KHRONOS_EXTENSIONS);
  const document = await io.readJSON({ json: json as never, resources: {} });
  return document.getRoot().listMaterials()[0];
}
const values = (m: Awaited<ReturnType<typeof readBack>>, name: string) =>
  m.getExtension<never>(`KHR_materials_${name}`) as unknown as Record<string, () => unknown> | null;

describe('a finish as a material of glTF', () => {
  it('with every part that has a place in it is read by an independent reader with the same numbers', async () => {
    const surface = surfaceOf(
      finish({
        base: { colour: '#C08040', roughness: 35 },
        metal: { metalness: 20 },
        brushed: { amount: 60, turn: 30 },
        glass: {},
        film: { film: 80, thickness: 420, ior: 1.4 },
        coat: { coat: 90, roughness: 12 },
        cloth: { sheen: 50, colour: '#FFE0C0', roughness: 40 },
        glow: { strength: 3, colour: '#FF8000' },
        veil: { alpha: 60 },
      }),
      clock,
    );
    const m = await readBack(surface);
    const close = (a: unknown, b: number) => expect(a as number).toBeCloseTo(b, 9);
    m.getBaseColorFactor().forEach((x, k) =>
      close(x, k < 3 ? displayToLight([0xc0, 0x80, 0x40][k] / 255) : surface.alpha),
    );
    close(m.getRoughnessFactor(), 0.35);
    close(m.getMetallicFactor(), surface.metalness);
    expect(m.getAlphaMode()).toBe('BLEND');
    close(values(m, 'anisotropy')!.getAnisotropyStrength(), 0.6);
    close(values(m, 'anisotropy')!.getAnisotropyRotation(), Math.PI / 6);
    close(values(m, 'transmission')!.getTransmissionFactor(), surface.transmission);
    close(values(m, 'iridescence')!.getIridescenceFactor(), 0.8);
    close(values(m, 'iridescence')!.getIridescenceIOR(), 1.4);
    close(values(m, 'iridescence')!.getIridescenceThicknessMaximum(), 420);
    close(values(m, 'clearcoat')!.getClearcoatFactor(), 0.9);
    close(values(m, 'clearcoat')!.getClearcoatRoughnessFactor(), 0.12);
    close(values(m, 'sheen')!.getSheenRoughnessFactor(), 0.4);
    close(values(m, 'emissive_strength')!.getEmissiveStrength(), 3);
    m.getEmissiveFactor().forEach((x, k) => close(x, displayToLight([255, 128, 0][k] / 255)));
  });
  it('glass keeps its index, its thickness and what it swallows; clear glass goes on without end', async () => {
    for (const preset of presets.filter((p) => p.parts.glass)) {
      const surface = surfaceOf(presetFinish(preset), clock);
      const m = await readBack(surface);
      const ior = values(m, 'ior');
      expect(ior ? ior.getIOR() : 1.5).toBeCloseTo(surface.ior, 9);
      const volume = values(m, 'volume');
      expect(volume ? volume.getThicknessFactor() : 0).toBeCloseTo(surface.thickness, 9);
      if (volume) expect(volume.getAttenuationDistance()).toBe(surface.attenuationDistance);
    }
  });
  it('asks for no extension that it does not need: a plain finish for none at all', async () => {
    expect(gltfMaterial('Plain', surfaceOf(finish({ base: {} }), clock)).extensions).toEqual([]);
    for (const p of presets) {
      const { material, extensions } = gltfMaterial(p.title, surfaceOf(presetFinish(p), clock));
      expect(Object.keys(material.extensions ?? {})).toEqual(extensions);
      expect(JSON.parse(JSON.stringify(material))).toEqual(material);
    }
  });
});
