import type { Surfaces } from '@maypole/core/finish/finish';
import type { Surface } from '@maypole/core/finish/surface';
import { LineBasicNodeMaterial, type Color, type Material } from 'three/webgpu';
import type { ViewMode } from './frame';
import { structureKey, SurfaceMaterial, type SurfaceStructure } from './surface-material';
import { throughViewTransform } from './view-transform';

const CLAY: Surface = { baseColor: '#C9C2B6', roughness: 0.85, metalness: 0 };
const INK = '#24262B';

/** The materials of the surfaces of one ribbon, for all kinds of its faces and all structures that are met. */
export class RibbonMaterials {
  readonly line = new LineBasicNodeMaterial({ transparent: true, opacity: 0.42 });
  readonly curve = new LineBasicNodeMaterial();
  private readonly made = new Map<string, { slot: number; surface: SurfaceMaterial }>();
  private surfaces: Surfaces | null = null;
  private clay = false;

  constructor() {
    throughViewTransform(this.line.color, INK);
  }

  /** The material for a kind of faces. Clay shows no colours of copies. */
  of(slot: number, structure: SurfaceStructure): Material {
    const plain = this.clay ? { ...structure, channels: [] } : structure;
    const key = `${slot}/${structureKey(plain)}`;
    let entry = this.made.get(key);
    if (!entry) {
      this.made.set(key, (entry = { slot, surface: new SurfaceMaterial(plain) }));
      entry.surface.update(this.surfaceOf(slot));
    }
    return entry.surface.material;
  }

  /** Takes over surfaces. True where objects must be made anew, since they need other materials. */
  update(surfaces: Surfaces, mode: ViewMode): boolean {
    const clay = mode === 'clay';
    const other = clay !== this.clay;
    this.clay = clay;
    this.surfaces = surfaces;
    for (const { slot, surface } of this.made.values()) surface.update(this.surfaceOf(slot));
    throughViewTransform(this.curve.color as Color, clay ? INK : surfaces[0].baseColor);
    return other;
  }

  dispose(): void {
    for (const { surface } of this.made.values()) surface.dispose();
    this.line.dispose();
    this.curve.dispose();
  }

  private surfaceOf(slot: number): Surface {
    return this.clay || !this.surfaces ? CLAY : (this.surfaces[slot] ?? this.surfaces[0]);
  }
}
