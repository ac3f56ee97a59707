import { PLAIN_SURFACE, type Surface } from '@maypole/core/finish/surface';
import type { CameraAt, LightAt } from '@maypole/core/scene/kind';
import {
  Color,
  DirectionalLight,
  FloatType,
  Mesh,
  MeshPhysicalMaterial,
  NoToneMapping,
  PerspectiveCamera,
  Scene,
  SphereGeometry,
  WebGLRenderer,
  WebGLRenderTarget,
} from 'three';
import type { Checked } from './checked';
import type { DrawablePart, ViewFrame } from '../stage/frame';
import { Stage } from '../stage/stage';

/**
 * Compares the renderer with the library's other one, whose shaders are written independently: spheres of many surfaces
 * under a sun, at lit points, highlights and near the edge.
 */

const SIZE = 64;
const DISTANCE = 4;
const FOCAL_LENGTH = 50;
/** Sensor width that focal lengths refer to, in millimetres: common practice. */
const SENSOR = 36;
/** The sun is as high as the camera, so that the order of rows does not matter. */
const [IRRADIANCE, FROM] = [3, [1, 0, 2] as const];

const sun: LightAt = {
  type: 'sun',
  irradiance: IRRADIANCE,
  from: unit(FROM),
  angle: 0,
  colour: [1, 1, 1],
  shadow: false,
};

function unit(v: readonly [number, number, number]): readonly [number, number, number] {
  const length = Math.hypot(...v);
  return [v[0] / length, v[1] / length, v[2] / length];
}

const cases: readonly { readonly name: string; readonly surface: Partial<Surface> }[] = [
  { name: 'matt red', surface: { baseColor: '#C0392B', roughness: 0.9 } },
  { name: 'polished blue', surface: { baseColor: '#2E6FA7', roughness: 0.3 } },
  { name: 'rough gold', surface: { baseColor: '#E0B354', roughness: 0.5, metalness: 1 } },
  { name: 'weak specular', surface: { baseColor: '#2E6FA7', roughness: 0.3, specular: 0.25 } },
  {
    name: 'lacquer',
    surface: { baseColor: '#3B6E4A', roughness: 0.8, clearcoat: 1, clearcoatRoughness: 0.25, features: ['coat'] },
  },
  {
    name: 'cloth',
    surface: {
      baseColor: '#4A3157',
      roughness: 1,
      sheen: 1,
      sheenColor: '#E8C9F2',
      sheenRoughness: 0.4,
      features: ['cloth'],
    },
  },
  {
    name: 'film',
    surface: {
      baseColor: '#101010',
      roughness: 0.4,
      iridescence: 1,
      iridescenceIor: 1.6,
      iridescenceThickness: 320,
      features: ['film'],
    },
  },
];

/** Compared pixels: in the middle, towards the sun and away from it, and near the edge. */
const PLACES = [
  [32, 32],
  [40, 32],
  [24, 32],
  [32, 40],
  [32, 24],
  [38, 38],
  [26, 26],
] as const;

/** Tolerance, relative to the brightest. */
const LIMIT = 0.01;

export async function* checkAgainstLibrary(): AsyncGenerator<Checked> {
  const geometry = new SphereGeometry(1, 64, 48);
  const other = new OtherRenderer(geometry);
  const stage = await Stage.create(document.createElement('canvas'));
  stage.setSize(SIZE, SIZE);
  try {
    for (const { name, surface } of cases) {
      const whole: Surface = { ...PLAIN_SURFACE, ...surface };
      stage.draw(frameOf(whole, geometry), 0, 1);
      const expected = other.draw(whole);
      let [difference, most] = [0, 0];
      for (const [x, y] of PLACES) {
        const own = await stage.lightAt(x, y);
        const theirs = expected(x, y);
        own.forEach((c, k) => {
          difference = Math.max(difference, Math.abs(c - theirs[k]));
          most = Math.max(most, theirs[k]);
        });
      }
      difference /= most;
      yield { name: `As the other renderer: ${name}`, difference, limit: LIMIT, share: difference <= LIMIT ? 0 : 1 };
    }
  } finally {
    stage.dispose();
    other.dispose();
    geometry.dispose();
  }
}

class OtherRenderer {
  private readonly renderer = new WebGLRenderer({ canvas: document.createElement('canvas') });
  private readonly target = new WebGLRenderTarget(SIZE, SIZE, { type: FloatType });
  private readonly camera = new PerspectiveCamera(
    (2 * Math.atan(SENSOR / 2 / FOCAL_LENGTH) * 180) / Math.PI,
    1,
    0.1,
    100,
  );

  constructor(private readonly geometry: SphereGeometry) {
    this.renderer.toneMapping = NoToneMapping;
    this.camera.position.set(0, 0, DISTANCE);
  }

  draw(s: Surface): (x: number, y: number) => readonly number[] {
    const material = new MeshPhysicalMaterial({
      color: new Color(s.baseColor),
      roughness: s.roughness,
      metalness: s.metalness,
      specularIntensity: s.specular,
      ior: s.ior,
      clearcoat: s.clearcoat,
      clearcoatRoughness: s.clearcoatRoughness,
      sheen: s.sheen,
      sheenColor: new Color(s.sheenColor),
      sheenRoughness: s.sheenRoughness,
      iridescence: s.iridescence,
      iridescenceIOR: s.iridescenceIor,
      iridescenceThicknessMaximum: s.iridescenceThickness,
    });
    const scene = new Scene();
    const light = new DirectionalLight('#FFFFFF', IRRADIANCE);
    light.position.set(...FROM);
    scene.add(new Mesh(this.geometry, material), light);
    this.renderer.setRenderTarget(this.target);
    this.renderer.render(scene, this.camera);
    const pixels = new Float32Array(4 * SIZE * SIZE);
    this.renderer.readRenderTargetPixels(this.target, 0, 0, SIZE, SIZE, pixels);
    material.dispose();
    return (x, y) => [0, 1, 2].map((k) => pixels[4 * (y * SIZE + x) + k]);
  }

  dispose(): void {
    this.target.dispose();
    this.renderer.dispose();
  }
}

const camera: CameraAt = {
  position: [0, 0, DISTANCE],
  target: [0, 0, 0],
  focalLength: FOCAL_LENGTH,
  parallel: 0,
  roll: 0,
  shift: [0, 0],
  exposure: 1,
  lensRadius: 0,
  blades: 0,
  focusDistance: DISTANCE,
  shutter: 0,
};

function frameOf(surface: Surface, geometry: SphereGeometry): ViewFrame {
  const triangles = Uint32Array.from(geometry.index!.array);
  const part: DrawablePart = {
    key: 'ball',
    topology: {
      key: 'ball',
      triangles,
      edges: new Uint32Array(0),
      lines: new Uint32Array(0),
      groups: [{ slot: 0, start: 0, count: triangles.length }],
      closed: true,
    },
    positions: geometry.getAttribute('position').array as Float32Array,
    normals: geometry.getAttribute('normal').array as Float32Array,
  };
  return {
    ribbons: [{ id: 'ball', shape: { key: 'ball', parts: [part] }, surfaces: { 0: surface } }],
    materials: new Map(),
    scene: {
      camera,
      lights: [sun],
      backdrop: { type: 'colour', colour: '#000000' },
      ground: [],
      air: [],
      picture: [],
    },
    aspect: 1,
    files: [],
    mode: 'shaded',
  };
}
