import {
  DataTexture,
  EquirectangularReflectionMapping,
  HalfFloatType,
  LinearFilter,
  LinearSRGBColorSpace,
  RGBAFormat,
  DataUtils,
} from 'three/webgpu';

/** A soft lamp on the sky: direction in degrees, half widths in degrees, brightness, softness. */
interface Lamp {
  readonly azimuth: number;
  readonly elevation: number;
  readonly width: number;
  readonly height: number;
  readonly light: number;
}

/** A big soft key, a fill, a strip from behind, and a bright ceiling: a usual product studio. */
const LAMPS: readonly Lamp[] = [
  { azimuth: -55, elevation: 42, width: 34, height: 26, light: 6 },
  { azimuth: 75, elevation: 18, width: 22, height: 34, light: 2.6 },
  { azimuth: 165, elevation: 30, width: 60, height: 9, light: 4 },
  { azimuth: 0, elevation: 88, width: 180, height: 16, light: 2.4 },
];

function smooth(edge0: number, edge1: number, x: number): number {
  const t = Math.max(0, Math.min(1, (x - edge0) / (edge1 - edge0)));
  return t * t * (3 - 2 * t);
}

/**
 * The studio as an equirectangular picture of light (linear, half float), made in code: grey
 * room, darker floor, soft boxes with soft edges.
 */
export function studioTexture(width = 512): DataTexture {
  const height = width / 2;
  const data = new Uint16Array(width * height * 4);
  for (let y = 0; y < height; y++) {
    // Row 0 of an unflipped texture is the bottom of the sky sphere.
    const elevation = ((y + 0.5) / height - 0.5) * 180;
    const room = 0.2 + 0.26 * smooth(-20, 60, elevation) - 0.12 * smooth(0, -50, elevation);
    for (let x = 0; x < width; x++) {
      const azimuth = ((x + 0.5) / width - 0.5) * 360;
      let light = room;
      for (const lamp of LAMPS) {
        const turn = ((azimuth - lamp.azimuth + 540) % 360) - 180;
        const dx = Math.abs(turn * Math.cos((Math.min(80, Math.abs(elevation)) * Math.PI) / 180)) / lamp.width;
        const dy = Math.abs(elevation - lamp.elevation) / lamp.height;
        light += lamp.light * (1 - smooth(0.55, 1.1, Math.max(dx, dy)));
      }
      const i = (y * width + x) * 4;
      const value = DataUtils.toHalfFloat(light);
      data[i] = value;
      data[i + 1] = value;
      data[i + 2] = DataUtils.toHalfFloat(light * 1.03);
      data[i + 3] = DataUtils.toHalfFloat(1);
    }
  }
  const texture = new DataTexture(data, width, height, RGBAFormat, HalfFloatType);
  texture.mapping = EquirectangularReflectionMapping;
  texture.colorSpace = LinearSRGBColorSpace;
  texture.minFilter = LinearFilter;
  texture.magFilter = LinearFilter;
  texture.needsUpdate = true;
  return texture;
}
