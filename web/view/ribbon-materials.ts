import type { FinishAt } from '@maypole/core/evaluate/scene';
import { attribute, normalViewGeometry, output, renderOutput } from 'three/tsl';
import { Color, DoubleSide, LineBasicNodeMaterial, MeshStandardNodeMaterial, NeutralToneMapping, SRGBColorSpace } from 'three/webgpu';
import type { ViewMode } from './frame';

const CLAY: FinishAt = { colour: '#C9C2B6', roughness: 0.85, metalness: 0 };

/** Sets a colour that is written to the canvas as it is: display values where the renderer expects light. */
export function displayColour(target: Color, hex: string): Color {
  return target.set(hex).convertLinearToSRGB();
}

/** What copies bring with them in place of the finish. */
export interface Wants {
  readonly coloured: boolean;
  readonly looked: boolean;
}

/** The materials of a ribbon: one for each finish its faces have, in the ways in which copies bring colours and looks of their own. */
export class RibbonMaterials {
  readonly line = new LineBasicNodeMaterial({ color: displayColour(new Color(), '#24262B'), transparent: true, opacity: 0.42 });
  readonly curve = new LineBasicNodeMaterial();
  private readonly made = new Map<string, { slot: number; material: MeshStandardNodeMaterial }>();
  private clay = false;

  of(slot: number, closed: boolean, { coloured, looked }: Wants): MeshStandardNodeMaterial {
    // Copies' own colours are of the main finish only, and clay shows none.
    const own = slot === 0 && !this.clay && (coloured || looked);
    const key = `${slot}/${closed}/${own && coloured}/${own && looked}`;
    let entry = this.made.get(key);
    if (!entry) {
      const material = new MeshStandardNodeMaterial({ side: DoubleSide, polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1 });
      // Bright light is rolled off on the surface alone, so that the backdrop keeps its exact colour.
      material.outputNode = renderOutput(output, NeutralToneMapping, SRGBColorSpace);
      // Backs of faces have their normals turned to the eye. On a closed form only slivers of them
      // are ever seen, along its outline, and turning those would draw a dark fringe round it.
      material.normalNode = closed ? normalViewGeometry : null;
      if (own && coloured) material.colorNode = attribute('copyColour', 'vec3');
      if (own && looked) {
        const look = attribute('copyLook', 'vec2');
        material.roughnessNode = look.x;
        material.metalnessNode = look.y;
      }
      this.made.set(key, (entry = { slot, material }));
    }
    return entry.material;
  }

  /** Takes over a finish. True where objects must be made anew, since they need other materials. */
  update(finish: FinishAt, mode: ViewMode): boolean {
    const clay = mode === 'clay';
    const other = clay !== this.clay;
    this.clay = clay;
    for (const { slot, material } of this.made.values()) {
      const look = clay ? CLAY : (finish.others?.[slot] ?? finish);
      material.color.set(look.colour);
      material.roughness = look.roughness;
      material.metalness = look.metalness;
    }
    displayColour(this.curve.color, clay ? '#24262B' : finish.colour);
    return other;
  }

  dispose(): void {
    for (const { material } of this.made.values()) material.dispose();
    this.line.dispose();
    this.curve.dispose();
  }
}
