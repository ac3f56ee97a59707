import { newItem, type Values } from '../declare/items';
import { newFinish, type FinishDoc } from './documents';
import { finishParts } from './parts/index';

/** A named finish. Once chosen it is an ordinary finish. */
export interface Preset {
  readonly id: string;
  readonly title: string;
  /** Parts that are on, with values that differ from their defaults. */
  readonly parts: Readonly<Record<string, Values>>;
}

/**
 * Finishes to begin with. Refractive indices: water 1.333, window glass 1.52, diamond 2.417 (Hecht,
 * Optics, table of indices); colours of metals in sRGB from their reflectances (gold, copper and
 * silver, common practice); lacquer 1.45 is near enough to the 1.5 of a coat.
 */
export const presets: readonly Preset[] = [
  { id: 'chalk', title: 'Chalk', parts: { base: { colour: '#EFEBE2', roughness: 96 } } },
  {
    id: 'wax',
    title: 'Wax',
    parts: { base: { colour: '#E7C9A0', roughness: 52 }, cloth: { sheen: 45, colour: '#FFE7C2', roughness: 60 } },
  },
  { id: 'clay', title: 'Terracotta', parts: { base: { colour: '#B5573A', roughness: 82 } } },
  { id: 'rubber', title: 'Rubber', parts: { base: { colour: '#26272B', roughness: 62 } } },
  {
    id: 'enamel',
    title: 'Enamel',
    parts: { base: { colour: '#D9483B', roughness: 34 }, coat: { coat: 100, roughness: 3 } },
  },
  {
    id: 'lacquer',
    title: 'Lacquer',
    parts: { base: { colour: '#15161A', roughness: 40 }, coat: { coat: 100, roughness: 1 } },
  },
  {
    id: 'pearl',
    title: 'Pearl',
    parts: {
      base: { colour: '#F2E9E4', roughness: 30 },
      film: { film: 70, thickness: 520, ior: 1.4 },
      coat: { coat: 60, roughness: 8 },
    },
  },
  { id: 'steel', title: 'Steel', parts: { base: { colour: '#C3C6CA', roughness: 24 }, metal: { metalness: 100 } } },
  { id: 'silver', title: 'Silver', parts: { base: { colour: '#FAF6EE', roughness: 8 }, metal: { metalness: 100 } } },
  { id: 'gold', title: 'Gold', parts: { base: { colour: '#F3C55B', roughness: 16 }, metal: { metalness: 100 } } },
  { id: 'copper', title: 'Copper', parts: { base: { colour: '#E59A7B', roughness: 20 }, metal: { metalness: 100 } } },
  {
    id: 'gunmetal',
    title: 'Blued steel',
    parts: {
      base: { colour: '#3E434D', roughness: 18 },
      metal: { metalness: 100 },
      film: { film: 100, thickness: 380, ior: 1.9 },
    },
  },
  {
    id: 'window',
    title: 'Window glass',
    parts: {
      base: { colour: '#FFFFFF', roughness: 0 },
      glass: { ior: 1.52, thickness: 0.3, tint: '#D8F0E6', tintAfter: 1.5 },
    },
  },
  {
    id: 'bottle',
    title: 'Bottle glass',
    parts: {
      base: { colour: '#FFFFFF', roughness: 3 },
      glass: { ior: 1.52, thickness: 0.4, tint: '#5FC48E', tintAfter: 0.5 },
    },
  },
  {
    id: 'frosted',
    title: 'Frosted glass',
    parts: { base: { colour: '#FFFFFF', roughness: 42 }, glass: { ior: 1.45, thickness: 0.5 } },
  },
  {
    id: 'diamond',
    title: 'Diamond',
    parts: { base: { colour: '#FFFFFF', roughness: 0 }, glass: { ior: 2.42, thickness: 0.8, dispersion: 0.36 } },
  },
  {
    id: 'soap',
    title: 'Soap film',
    parts: {
      base: { colour: '#FFFFFF', roughness: 0 },
      glass: { ior: 1.33, thickness: 0 },
      film: { film: 100, thickness: 460, ior: 1.33 },
    },
  },
  {
    id: 'velvet',
    title: 'Velvet',
    parts: { base: { colour: '#5B1F3D', roughness: 95 }, cloth: { sheen: 100, colour: '#E58BB4', roughness: 28 } },
  },
  {
    id: 'felt',
    title: 'Felt',
    parts: { base: { colour: '#3A5F7D', roughness: 100 }, cloth: { sheen: 70, colour: '#B7D3E6', roughness: 70 } },
  },
  {
    id: 'ember',
    title: 'Ember',
    parts: { base: { colour: '#2A0F0A', roughness: 70 }, glow: { colour: '#FF5A1F', strength: 1.2 } },
  },
  {
    id: 'neon',
    title: 'Neon tube',
    parts: { base: { colour: '#101014', roughness: 40 }, glow: { colour: '#4FD6FF', strength: 1.8 } },
  },
  {
    id: 'mist',
    title: 'Mist',
    parts: { base: { colour: '#DDE7EC', roughness: 100 }, veil: { how: 'over', alpha: 18 } },
  },
  {
    id: 'beam',
    title: 'Beam',
    parts: {
      base: { colour: '#000000', roughness: 100 },
      glow: { colour: '#7FB8FF', strength: 0.6 },
      veil: { how: 'add', alpha: 60 },
    },
  },
];

/** The parts of a preset as items: base and metal are always there. */
export function partsOf(preset: Preset): FinishDoc['parts'] {
  return finishParts.all
    .filter((p) => p.kind === 'base' || p.kind === 'metal' || preset.parts[p.kind])
    .map((p) => newItem(p, preset.parts[p.kind] ?? {}));
}

/** The finish of a preset. */
export function presetFinish(preset: Preset): FinishDoc {
  return { ...newFinish(), parts: partsOf(preset) };
}
