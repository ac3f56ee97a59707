import type { CopyChannel } from '@maypole/core/copies/channels';
import type { Surface } from '@maypole/core/finish/surface';
import { attribute, mix, normalViewGeometry, uniform } from 'three/tsl';
import { Color, DoubleSide, MeshStandardNodeMaterial } from 'three/webgpu';

/** What a material is compiled for. Equal structures share a material; everything else of a surface is a uniform. */
export interface SurfaceStructure {
  /** Without any border, so that backs of faces are never looked at. */
  readonly closed: boolean;
  /** Channels that copies bring with them. */
  readonly channels: readonly CopyChannel[];
}

export function structureKey({ closed, channels }: SurfaceStructure): string {
  return `${closed ? 'closed' : 'open'}/${channels.join()}`;
}

/** Attributes by which copies bring channels: the last number of each says whether the copy has one of its own. */
export const COPY_ATTRIBUTES = {
  baseColor: { name: 'copyBaseColor', width: 4 },
  roughness: { name: 'copyRoughness', width: 2 },
  metalness: { name: 'copyMetalness', width: 2 },
} as const satisfies Record<CopyChannel, { readonly name: string; readonly width: number }>;

/**
 * A surface as a material of the graphics card, in linear light: its structure decides what is
 * compiled, and its numbers are uniforms, so that changing a number compiles nothing.
 */
export class SurfaceMaterial {
  readonly material: MeshStandardNodeMaterial;
  private readonly baseColor = uniform(new Color());
  private readonly roughness = uniform(1);
  private readonly metalness = uniform(0);

  constructor({ closed, channels }: SurfaceStructure) {
    this.material = new MeshStandardNodeMaterial({
      side: DoubleSide,
      polygonOffset: true,
      polygonOffsetFactor: 1,
      polygonOffsetUnits: 1,
    });
    // Backs of faces have their normals turned to the eye. On a closed form only slivers of them
    // are ever seen, along its outline, and turning those would draw a dark fringe round it.
    this.material.normalNode = closed ? normalViewGeometry : null;
    const own = (channel: CopyChannel) => (channels.includes(channel) ? COPY_ATTRIBUTES[channel].name : null);
    const [tint, rough, metal] = [own('baseColor'), own('roughness'), own('metalness')];
    const colours = tint && attribute<'vec4'>(tint, 'vec4');
    this.material.colorNode = colours ? mix(this.baseColor, colours.rgb, colours.a) : this.baseColor;
    const scalar = (plain: typeof this.roughness, name: string | null) => {
      const pair = name && attribute<'vec2'>(name, 'vec2');
      return pair ? mix(plain, pair.x, pair.y) : plain;
    };
    this.material.roughnessNode = scalar(this.roughness, rough);
    this.material.metalnessNode = scalar(this.metalness, metal);
  }

  update({ baseColor, roughness, metalness }: Surface): void {
    this.baseColor.value.set(baseColor);
    this.roughness.value = roughness;
    this.metalness.value = metalness;
  }

  dispose(): void {
    this.material.dispose();
  }
}
