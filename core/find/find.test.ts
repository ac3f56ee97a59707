import { describe, expect, it } from 'vitest';
import { entries } from './entries';
import { ranked } from './ranking';
import { TRADE_WORDS } from './trade-words';

/** What somebody may ask, and what they mean by it. */
const QUESTIONS: readonly (readonly [string, string])[] = [
  ['how do I export a movie', 'do:deliver'],
  ['render', 'do:deliver'],
  ['make a donut', 'step:torus'],
  ['cube', 'step:box'],
  ['add noise to the surface', 'step:displace'],
  ['bumpy', 'step:displace'],
  ['lattice deform', 'step:cage'],
  ['radial array', 'step:repeat-rings'],
  ['clone in a row', 'step:repeat-line'],
  ['particles', 'step:stream'],
  ['metaballs', 'step:drops'],
  ['gyroid', 'step:minimal'],
  ['fractal', 'step:endless'],
  ['torus knot', 'step:cord'],
  ['type my word in 3d', 'step:text'],
  ['import obj', 'step:imported'],
  ['boolean subtract', 'step:combine'],
  ['round the edges', 'step:bevel'],
  ['chamfer', 'step:bevel'],
  ['solidify', 'step:shell'],
  ['low poly', 'step:decimate'],
  ['wireframe', 'do:show-edges'],
  ['plexus', 'step:links'],
  ['rotate it', 'step:spin'],
  ['move', 'step:place'],
  ['rolling cube', 'step:tumble'],
  ['explode', 'step:burst'],
  ['kaleidoscope', 'step:symmetry'],
  ['twisting', 'step:twist'],
  ['bend it', 'step:bend'],
  ['waves', 'step:ripple'],
  ['lathe', 'step:revolve'],
  ['tube along a spline', 'step:sweep'],
  ['stagger the copies', 'step:vary'],
  ['pendulum', 'step:swing'],
  ['grass', 'step:scatter'],
  ['glass material', 'part:glass'],
  ['chrome', 'part:metal'],
  ['iridescent', 'part:film'],
  ['velvet', 'part:cloth'],
  ['neon', 'part:glow'],
  ['clearcoat', 'part:coat'],
  ['normal map', 'part:bump'],
  ['opacity', 'part:veil'],
  ['hdri', 'lights:panorama'],
  ['spotlight', 'lights:spot'],
  ['softbox', 'lights:area'],
  ['point light', 'lights:ball'],
  ['god rays', 'air:haze'],
  ['fog', 'air:fog'],
  ['bloom', 'picture:bloom'],
  ['chromatic aberration', 'picture:fringe'],
  ['film grain', 'picture:grain'],
  ['shadow catcher', 'ground:catcher'],
  ['transparent background', 'backdrop:clear'],
  ['path tracing', 'do:true-light'],
  ['does it loop', 'do:seam'],
  ['go back to an earlier version', 'do:history'],
  ['show me alternatives', 'do:sheet'],
  ['dark mode', 'do:dusk'],
  ['change the random seed', 'do:throw'],
  ['depth pass for compositing', 'output:exr'],
  ['gltf', 'output:glb'],
  ['image sequence', 'output:png'],
  ['twsit', 'step:twist'],
];

describe('what is looked for', () => {
  it.each(QUESTIONS)('“%s” is among the first three', (query, id) => {
    expect(
      ranked(query, entries)
        .slice(0, 3)
        .map((e) => e.id),
    ).toContain(id);
  });
  it('has names that are all there, each once', () => {
    const ids = entries.map((e) => e.id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(Object.keys(TRADE_WORDS).filter((id) => !ids.includes(id))).toEqual([]);
  });
  it('is everything where nothing is asked, and nothing where nothing fits', () => {
    expect(ranked('', entries)).toHaveLength(entries.length);
    expect(ranked('  ', entries)).toHaveLength(entries.length);
    expect(ranked('zzzqqq', entries)).toEqual([]);
  });
  it('comes first under its own name', () => {
    for (const e of entries.filter((x) => x.sort === 'Step' || x.sort === 'Do'))
      expect(ranked(e.title, entries)[0].title, e.title).toBe(e.title);
  });
});
