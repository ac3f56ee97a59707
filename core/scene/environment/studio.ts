/** A soft box: direction and half widths in degrees, brightness. */
interface SoftLamp {
  readonly azimuth: number;
  readonly elevation: number;
  readonly width: number;
  readonly height: number;
  readonly light: number;
}

/** A large soft key, a fill, a strip from behind, and a bright ceiling: a usual product studio. */
const LAMPS: readonly SoftLamp[] = [
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
 * Radiance of the studio from a direction: grey room, darker floor, soft boxes with soft edges.
 *
 * @param elevation, azimuth degrees; azimuth from −x
 */
export function studioLight(elevation: number, azimuth: number): readonly [number, number, number] {
  let light = 0.2 + 0.26 * smooth(-20, 60, elevation) - 0.12 * smooth(0, -50, elevation);
  const flat = Math.cos((Math.min(80, Math.abs(elevation)) * Math.PI) / 180);
  for (const lamp of LAMPS) {
    const turn = ((azimuth - lamp.azimuth + 540) % 360) - 180;
    const across = Math.abs(turn * flat) / lamp.width;
    const up = Math.abs(elevation - lamp.elevation) / lamp.height;
    light += lamp.light * (1 - smooth(0.55, 1.1, Math.max(across, up)));
  }
  return [light, light, light * 1.03];
}
