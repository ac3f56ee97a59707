import type { Surfaces } from '@maypole/core/finish/finish';
import { facesOf, PLAIN_SURFACE, type Faces, type Surface, type Wires } from '@maypole/core/finish/surface';
import { LineBasicNodeMaterial, type Color } from 'three/webgpu';
import type { AmbientOcclusion } from '../lights/ambient-occlusion';
import type { ViewMode } from '../stage/frame';
import { DotMaterial } from '../objects/dots';
import { WireMaterials } from '../objects/wires';
import { patternsKey } from '../patterns/pattern-nodes';
import { structureKey, SurfaceMaterial, type SurfaceStructure } from './surface-material';
import { throughViewTransform } from '../effects/view-transform';

const CLAY: Surface = { ...PLAIN_SURFACE, baseColor: '#C9C2B6', roughness: 0.85 };
const INK = '#24262B';

/** Unused materials to keep: returning to one compiles nothing. */
const MOST_STALE = 6;

/** Materials of one ribbon, for all face kinds and structures in use. */
export class RibbonMaterials {
  readonly line = new LineBasicNodeMaterial({ transparent: true, opacity: 0.42 });
  readonly curve = new LineBasicNodeMaterial();
  /** Made when a finish first needs wires. */
  private wireMaterials: WireMaterials | null = null;
  private dotMaterial: DotMaterial | null = null;
  private readonly made = new Map<string, { slot: number; patterns: string; surface: SurfaceMaterial }>();
  private surfaces: Surfaces | null = null;
  private clay = false;
  private readonly keys = new Map<number, string>();
  private features = '';
  private dome: AmbientOcclusion | null = null;

  constructor() {
    throughViewTransform(this.line.color, INK);
  }

  /** The material of a face kind. Clay ignores overrides. */
  of(
    slot: number,
    { closed, channels, from, field }: Pick<SurfaceStructure, 'closed' | 'channels' | 'from' | 'field'>,
  ): SurfaceMaterial {
    const { features, additive, patterns, grooves } = this.surfaceOf(slot);
    const plain = {
      closed,
      channels: this.clay ? [] : channels,
      features,
      additive,
      grooves,
      patterns,
      covers: this.faces === 'cover',
      dome: this.dome ?? undefined,
      from,
      field,
    };
    const key = `${slot}/${structureKey(plain)}`;
    let entry = this.made.get(key);
    if (!entry) {
      this.made.set(key, (entry = { slot, patterns: patternsKey(patterns), surface: new SurfaceMaterial(plain) }));
      entry.surface.update(this.surfaceOf(slot));
    }
    return entry.surface;
  }

  /** Wires of the main finish; null for none, and in clay. */
  get wires(): Wires | null {
    return this.clay ? null : (this.surfaces?.[0].wires ?? null);
  }

  /** How faces are drawn where edges or points are shown. */
  get faces(): Faces {
    return this.clay || !this.surfaces ? 'shown' : facesOf(this.surfaces[0]);
  }

  /** Dots of the main finish; null for none, and in clay. */
  get dots(): DotMaterial | null {
    return this.clay || !this.surfaces?.[0].dots ? null : (this.dotMaterial ??= new DotMaterial());
  }

  get wireLook(): WireMaterials {
    return (this.wireMaterials ??= new WireMaterials());
  }

  /**
   * Updates surfaces. Returns which objects must be remade for other materials: all, or those whose copies have
   * overrides.
   */
  update(surfaces: Surfaces, mode: ViewMode, dome: AmbientOcclusion | null = null): 'all' | 'with channels' | 'none' {
    const clay = mode === 'clay';
    const flipped = clay !== this.clay;
    this.clay = clay;
    this.surfaces = surfaces;
    this.keys.clear();
    const features = Object.entries(surfaces)
      .map(
        ([slot, s]) =>
          `${slot}:${clay ? '' : `${s.features.join()}${s.additive ? '+' : ''}${s.features.includes('brushed') ? `${s.grooves.way}${s.grooves.axis}` : ''}${facesOf(s) === 'shown' ? '' : facesOf(s)}${this.patternsOf(Number(slot))}`}`,
      )
      .join('/');
    const other = features !== this.features || dome !== this.dome ? 'all' : flipped ? 'with channels' : 'none';
    if (features !== this.features) this.forget();
    this.features = features;
    this.dome = dome;
    // Materials of other structures wait until they are needed again.
    for (const { slot, surface, patterns } of this.made.values())
      if (patterns === this.patternsOf(slot)) surface.update(this.surfaceOf(slot));
    if (this.wires) this.wireLook.update(this.wires);
    if (surfaces[0].dots) this.dots?.update(surfaces[0].dots);
    throughViewTransform(this.curve.color as Color, clay ? INK : surfaces[0].baseColor);
    return other;
  }

  /** Drops the oldest whose patterns are unused: users try one kind of noise after the other. */
  private forget(): void {
    const stale = [...this.made].filter(([, m]) => m.patterns !== this.patternsOf(m.slot));
    for (const [key, { surface }] of stale.slice(0, Math.max(0, stale.length - MOST_STALE))) {
      surface.dispose();
      this.made.delete(key);
    }
  }

  dispose(): void {
    for (const { surface } of this.made.values()) surface.dispose();
    this.line.dispose();
    this.curve.dispose();
    this.wireMaterials?.dispose();
    this.dotMaterial?.dispose();
  }

  /** Structure of a face kind's patterns, computed once per surface. */
  private patternsOf(slot: number): string {
    let key = this.keys.get(slot);
    if (key === undefined) this.keys.set(slot, (key = patternsKey(this.surfaceOf(slot).patterns)));
    return key;
  }

  private surfaceOf(slot: number): Surface {
    return this.clay || !this.surfaces ? CLAY : (this.surfaces[slot] ?? this.surfaces[0]);
  }
}
