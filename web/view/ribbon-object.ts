import type { FinishAt } from '@maypole/core/evaluate/scene';
import { Color, Group, LineBasicNodeMaterial, PointsNodeMaterial } from 'three/webgpu';
import type { Drawable, DrawablePart, ViewMode } from './frame';
import { kindOf, PartObject, uvMaterial, type ExtraMaterials } from './part-object';
import { displayColour, RibbonMaterials } from './ribbon-materials';

/** A ribbon on screen: its parts, kept from frame to frame and found again by what they show. */
export class RibbonObject {
  readonly group = new Group();
  private readonly materials = new RibbonMaterials();
  private readonly extras: ExtraMaterials = {
    point: new PointsNodeMaterial({ color: displayColour(new Color(), '#24262B'), size: 5, sizeAttenuation: false }),
    normal: new LineBasicNodeMaterial({ color: displayColour(new Color(), '#3A86B7') }),
    uv: uvMaterial(),
  };
  private parts: PartObject[] = [];
  private shown = '';

  /** The parts that are drawn now. */
  get objects(): readonly PartObject[] {
    return this.parts;
  }

  update(shape: Drawable, finish: FinishAt, mode: ViewMode): void {
    const other = this.materials.update(finish, mode);
    if (other && shape.parts.some((p) => kindOf(p) !== 'one' && kindOf(p) !== 'copies')) this.clear();
    const look = `${shape.key}/${finish.colour}/${finish.roughness}/${finish.metalness}`;
    const changed = look !== this.shown;
    this.shown = look;
    const before = this.parts;
    const objects = changed || before.length === 0 ? this.arranged(shape.parts, before) : before;
    this.parts = objects;
    shape.parts.forEach((part, i) => objects[i].update(part, mode, finish.colour, [finish.roughness, finish.metalness], changed));
    // Materials made just now take over the finish, too.
    this.materials.update(finish, mode);
  }

  dispose(): void {
    this.clear();
    this.materials.dispose();
    for (const m of Object.values(this.extras) as { dispose(): void }[]) m.dispose();
  }

  /** An object for each part: the one that shows it already, else one with the same corners, else a new one. */
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
      // Some room to spare, so that a stream that swells is not made anew at every frame.
      const made = new PartObject(part.topology.key, Math.ceil(count * 1.25) + 4, kindOf(part), part, this.materials, this.extras);
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
