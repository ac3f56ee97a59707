import type { RibbonAt } from '@maypole/core/evaluate/picture-at';
import type { Surfaces } from '@maypole/core/finish/finish';
import { Color, Group, LineBasicNodeMaterial, PointsNodeMaterial } from 'three/webgpu';
import type { AmbientOcclusion } from '../lights/ambient-occlusion';
import type { Drawable, DrawablePart, ViewMode } from '../stage/frame';
import { isWithin } from '../stage/extent';
import { hasOwnChannels, kindOf, PartObject, uvMaterial, type ExtraMaterials } from './part-object';
import { RibbonMaterials } from '../surfaces/ribbon-materials';
import { throughViewTransform } from '../effects/view-transform';

/** A ribbon on screen: its parts, reused from frame to frame and matched by what they show. */
export class RibbonObject {
  readonly group = new Group();
  /** Its own materials under '', and those of ribbons whose finish its copies use under their identifier. */
  private readonly materials = new Map<string, RibbonMaterials>();
  private readonly extras: ExtraMaterials = {
    point: new PointsNodeMaterial({
      color: throughViewTransform(new Color(), '#24262B'),
      size: 5,
      sizeAttenuation: false,
    }),
    normal: new LineBasicNodeMaterial({ color: throughViewTransform(new Color(), '#3A86B7') }),
    uv: uvMaterial(),
  };
  private parts: PartObject[] = [];
  private shown = '';
  private within = false;

  /** The parts drawn now. */
  get objects(): readonly PartObject[] {
    return this.parts;
  }

  update(
    { shape, surfaces }: RibbonAt<Drawable>,
    wardrobe: ReadonlyMap<string, Surfaces>,
    mode: ViewMode,
    dome: AmbientOcclusion | null = null,
    eye?: readonly number[],
  ): void {
    const worn = new Set(shape.parts.map((p) => p.instances?.materialRibbon ?? ''));
    const told = [...worn].map((wearer) =>
      this.materialsOf(wearer).update(wardrobe.get(wearer) ?? surfaces, mode, dome),
    );
    // From inside, closed shapes show their back faces.
    const within = eye !== undefined && shape.parts.some((p) => isWithin(eye, p));
    if (within !== this.within) this.clear();
    this.within = within;
    const other = told.some((t) => t !== 'none');
    if (told.includes('all') || (other && shape.parts.some(hasOwnChannels))) this.clear();
    const changed = shape.key !== this.shown;
    this.shown = shape.key;
    this.parts = changed || this.parts.length === 0 ? this.arranged(shape.parts, this.parts) : this.parts;
    shape.parts.forEach((part, i) => this.parts[i].update(part, mode, changed || other));
    for (const [wearer, materials] of this.materials) {
      if (worn.has(wearer)) continue;
      materials.dispose();
      this.materials.delete(wearer);
    }
  }

  dispose(): void {
    this.clear();
    for (const m of this.materials.values()) m.dispose();
    for (const m of Object.values(this.extras) as { dispose(): void }[]) m.dispose();
  }

  private materialsOf(wearer: string): RibbonMaterials {
    let materials = this.materials.get(wearer);
    if (!materials) this.materials.set(wearer, (materials = new RibbonMaterials()));
    return materials;
  }

  /** An object for each part: the one that shows it already, else one of the same topology, else a new one. */
  private arranged(parts: readonly DrawablePart[], before: readonly PartObject[]): PartObject[] {
    const free = new Set(before);
    const byShape = new Map(before.map((o) => [o.shape, o]));
    const out: (PartObject | undefined)[] = parts.map((part) => {
      const o = byShape.get(part.key);
      if (!o || !free.has(o) || !o.fits(part)) return undefined;
      free.delete(o);
      return o;
    });
    parts.forEach((part, i) => {
      if (out[i]) return;
      for (const o of free)
        if (o.fits(part)) {
          free.delete(o);
          out[i] = o;
          return;
        }
      const count = part.instances?.numbers.length ?? 0;
      // Some spare capacity, so that a growing stream is not remade at every frame.
      const made = new PartObject(
        part.topology.key,
        Math.ceil(count * 1.25) + 4,
        kindOf(part),
        part,
        this.materialsOf(part.instances?.materialRibbon ?? ''),
        this.extras,
        this.within,
      );
      this.group.add(made.group);
      out[i] = made;
    });
    for (const o of free) {
      this.group.remove(o.group);
      o.dispose();
    }
    return out as PartObject[];
  }

  private clear(): void {
    for (const o of this.parts) o.dispose();
    this.group.clear();
    this.parts = [];
  }
}
