import type { DistanceField } from '@maypole/core/shape/fractals/field';
import { Mesh } from 'three/webgpu';
import type { RibbonMaterials } from '../surfaces/ribbon-materials';
import type { SurfaceMaterial } from '../surfaces/surface-material';
import { fieldBox, type FieldStructure } from './march';

/** A form that is ray marched per pixel, drawn as its bounding box. */
export class FieldObject {
  readonly mesh: Mesh;
  private readonly surface: SurfaceMaterial;
  private readonly structure: FieldStructure;

  constructor({ form, cut }: DistanceField, materials: RibbonMaterials) {
    this.structure = { form, cut };
    this.surface = materials.of(0, {
      closed: true,
      channels: [],
      from: { copies: false, uv: false, crevice: false },
      field: this.structure,
    });
    this.mesh = new Mesh(fieldBox(this.structure), this.surface.material);
    this.mesh.matrixAutoUpdate = false;
    this.mesh.frustumCulled = false;
    this.mesh.castShadow = !this.surface.material.userData.clear;
    this.mesh.receiveShadow = true;
  }

  /** Whether it can show a form: the same shader with other numbers. */
  fits({ form, cut }: DistanceField): boolean {
    return form === this.structure.form && cut === this.structure.cut;
  }

  update(field: DistanceField): void {
    this.surface.field?.update(field);
    this.mesh.matrix.fromArray(field.matrix);
    this.mesh.matrixWorldNeedsUpdate = true;
  }

  dispose(): void {
    this.mesh.geometry.dispose();
  }
}
