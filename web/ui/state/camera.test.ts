import { evaluateValues } from '@maypole/core/time/values';
import { sceneAt } from '@maypole/core/evaluate/picture-at';
import { randomSource } from '@maypole/core/maths/random';
import { cameraOf, newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { readPiece, writePiece } from '@maypole/core/piece/read';
import { orbitParams } from '@maypole/core/scene/cameras/orbit';
import { halfHeight } from '@maypole/core/scene/lens';
import { projectionOf } from '@maypole/core/scene/projection';
import { proveSeam } from '@maypole/core/seam/proof';
import { Matrix4, PerspectiveCamera, Vector3 } from 'three';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { focusOnRibbon, frameAll, isometric, MOVES, moveCamera, orbit, pan, zoom } from './camera';
import { useEditor } from './store';

/** Shapes that the engine is said to have, by ribbon and frame: corners of boxes. */
const engine = vi.hoisted(() => ({ shapes: new Map<string, Float32Array>(), there: true }));
vi.mock('./session', () => ({
  session: () =>
    engine.there
      ? {
          engine: {
            geometry: (ribbon: { id: string }, frame: number) => {
              const positions = engine.shapes.get(`${ribbon.id}/${frame}`) ?? engine.shapes.get(ribbon.id);
              return positions && { parts: [{ positions }] };
            },
          },
        }
      : null,
}));

const now = () => useEditor.getState();
const camera = () => cameraOf(now().piece).values;
const put = (values: Piece['scene']['cameras'][0]['values'], more: Partial<Piece> = {}) => {
  const piece = { ...newPiece('Camera'), ...more };
  const [first] = piece.scene.cameras;
  now().open(
    'id',
    { ...piece, scene: { ...piece.scene, cameras: [{ ...first, values: { ...first.values, ...values } }] } },
    1,
  );
};
const at = (frame = 0) => evaluateValues(orbitParams, camera(), { frame, frames: now().piece.loop.frames });

/** The camera of three.js as ours is now: what a public library makes of the same place, aim and lens. */
function reference(frame = 0): PerspectiveCamera {
  const { piece } = now();
  const { camera: seen } = sceneAt(piece, frame);
  const aspect = piece.format.width / piece.format.height;
  const three = new PerspectiveCamera((2 * Math.atan(halfHeight(seen, aspect, aspect)) * 180) / Math.PI, aspect);
  three.position.set(...seen.position);
  three.lookAt(...seen.target);
  three.rotateZ((seen.roll * Math.PI) / 180);
  three.updateMatrixWorld();
  three.updateProjectionMatrix();
  return three;
}

beforeEach(() => {
  engine.shapes.clear();
  engine.there = true;
  put({});
});

describe('the camera by hand', () => {
  it('pans so that what is at the target goes by just that part of the height, as three.js sees it', () => {
    const random = randomSource(11);
    for (let k = 0; k < 30; k++) {
      put(
        {
          azimuth: 360 * random() - 180,
          elevation: 160 * random() - 80,
          distance: 2 + 20 * random(),
          focalLength: 20 + 100 * random(),
          roll: 40 * random() - 20,
          target: [random(), random(), random()],
        },
        { format: { width: 400 + Math.floor(800 * random()), height: 600 } },
      );
      const held = new Vector3(...(at().target as [number, number, number]));
      const [right, up] = [0.4 * random() - 0.2, 0.4 * random() - 0.2];
      pan(right, up);
      const seen = held.clone().project(reference());
      // From −1 to 1 over the picture: half of it is a part of the height.
      const aspect = now().piece.format.width / now().piece.format.height;
      expect((seen.x / 2) * aspect).toBeCloseTo(-right, 3);
      expect(seen.y / 2).toBeCloseTo(-up, 3);
    }
  });
  it('goes round its target without coming nearer, and never over the top', () => {
    put({ elevation: 80, distance: 5 });
    orbit(30, 60);
    expect(at().elevation).toBe(89.9);
    orbit(0, -400);
    expect(at().elevation).toBe(-89.9);
    const { camera: seen } = sceneAt(now().piece, 0);
    expect(Math.hypot(...seen.position.map((p, i) => p - seen.target[i]))).toBeCloseTo(5, 9);
  });
  it('comes nearer by a factor, however often, and stays within what a document may hold', () => {
    put({ distance: 8 });
    zoom(0.5);
    expect(at().distance).toBe(4);
    for (let k = 0; k < 60; k++) zoom(0.1);
    expect(at().distance).toBe(orbitParams.distance.min);
    for (let k = 0; k < 60; k++) zoom(10);
    expect(at().distance).toBe(orbitParams.distance.max);
    put({ lens: 'parallel', span: 6 });
    zoom(2);
    expect(at().span).toBe(12);
  });
  it('takes a move along: what moved about one value moves about the new one by as much', () => {
    moveCamera('sway');
    const before = [0, 12, 37].map((f) => at(f).azimuth);
    orbit(25, 0);
    [0, 12, 37].forEach((f, i) => expect(at(f).azimuth).toBeCloseTo(before[i] + 25, 6));
  });
});

describe('frame all', () => {
  /** The eight corners of a box. */
  const box = (min: readonly number[], max: readonly number[]) =>
    Float32Array.from([0, 1, 2, 3, 4, 5, 6, 7].flatMap((c) => [0, 1, 2].map((k) => ((c >> k) & 1 ? max[k] : min[k]))));
  const ribbons = [newRibbon('box', 0, 'One'), newRibbon('box', 1, 'Two')];

  it('has all corners in the picture, and not much more, for any format, lens and place', () => {
    const random = randomSource(7);
    for (let k = 0; k < 60; k++) {
      put(
        {
          azimuth: 360 * random(),
          elevation: 170 * random() - 85,
          focalLength: 15 + 185 * random(),
          distance: 1 + 30 * random(),
        },
        {
          ribbons,
          format: { width: 200 + Math.floor(1800 * random()), height: 200 + Math.floor(1800 * random()) },
        },
      );
      const middle = [0, 1, 2].map(() => 20 * random() - 10);
      const half = [0, 1, 2].map(() => 0.05 + 4 * random());
      engine.shapes.set(
        ribbons[0].id,
        box(
          middle.map((m, i) => m - half[i]),
          middle.map((m, i) => m + half[i]),
        ),
      );
      frameAll();
      const three = reference();
      const corners = engine.shapes.get(ribbons[0].id)!;
      let most = 0;
      for (let i = 0; i < corners.length; i += 3) {
        const seen = new Vector3(corners[i], corners[i + 1], corners[i + 2]).project(three);
        most = Math.max(most, Math.abs(seen.x), Math.abs(seen.y));
      }
      expect(most).toBeLessThan(0.93);
      expect(most).toBeGreaterThan(0.91);
      // Whatever it sets, the document takes.
      expect(readPiece(writePiece(now().piece)).ok).toBe(true);
    }
  });
  it('counts what is on, over the loop as far as it is there', () => {
    put({}, { ribbons: [ribbons[0], { ...ribbons[1], on: false }], loop: { frames: 24, fps: 24 } });
    engine.shapes.set(ribbons[1].id, box([100, 0, 0], [101, 1, 1]));
    engine.shapes.set(`${ribbons[0].id}/0`, box([-1, -1, -1], [1, 1, 1]));
    engine.shapes.set(`${ribbons[0].id}/12`, box([3, -1, -1], [5, 1, 1]));
    frameAll();
    expect(at().target).toEqual([2, 0, 0]);
  });
  it('does nothing where nothing is there to be framed', () => {
    const before = now().piece;
    frameAll();
    engine.there = false;
    frameAll();
    expect(now().piece).toBe(before);
  });
  it('sets how much a parallel camera sees, and leaves its distance', () => {
    put({ lens: 'parallel', span: 100, distance: 9 }, { ribbons, format: { width: 800, height: 400 } });
    engine.shapes.set(ribbons[0].id, box([-1, -1, -1], [1, 1, 1]));
    frameAll();
    const { camera: seen } = sceneAt(now().piece, 0);
    const to = projectionOf(seen, 2, 800, 400).to;
    const across = [-1, 1].flatMap((x) => [-1, 1].flatMap((y) => [-1, 1].map((z) => to([x, y, z])!.y)));
    // The height is what is short; 92 % of it are filled.
    expect((Math.max(...across) - Math.min(...across)) / 400).toBeCloseTo(0.92, 3);
    expect(at().distance).toBe(9);
  });
});

describe('an isometric view', () => {
  it('shows the three axes equally long and 120 degrees apart (ISO 5456-3)', () => {
    put({ azimuth: 12, elevation: 3, roll: 9, distance: 8 });
    isometric();
    const { camera: seen } = sceneAt(now().piece, 0);
    const to = projectionOf(seen, 1, 1000, 1000).to;
    const zero = to([0, 0, 0])!;
    const axes = [
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
    ].map((a) => {
      const end = to(a as [number, number, number])!;
      return [end.x - zero.x, end.y - zero.y];
    });
    const lengths = axes.map((a) => Math.hypot(...a));
    expect(lengths[1] / lengths[0]).toBeCloseTo(1, 4);
    expect(lengths[2] / lengths[0]).toBeCloseTo(1, 4);
    for (let i = 0; i < 3; i++) {
      const [a, b] = [axes[i], axes[(i + 1) % 3]];
      const angle = Math.acos((a[0] * b[0] + a[1] * b[1]) / lengths[i] / lengths[(i + 1) % 3]);
      expect((angle * 180) / Math.PI).toBeCloseTo(120, 3);
    }
  });
  it('shows about as much as was seen before, and keeps what a parallel camera shows', () => {
    put({ distance: 8, focalLength: 50 });
    isometric();
    // The width of the film, 36 mm, is as many times the focal length as what is seen is the distance.
    expect(at().span).toBeCloseTo((8 * 36) / 50, 3);
    zoom(0.5);
    const { span } = at();
    isometric();
    expect(at().span).toBe(span);
  });
});

describe('moves of the camera', () => {
  it.each(MOVES.map((m) => [m.id]))('"%s" begins where the camera stands, and closes', (id) => {
    put({ azimuth: 33.5, elevation: 12, distance: 6 }, { ribbons: [newRibbon('box', 0)] });
    const before = sceneAt(now().piece, 0).camera.position;
    moveCamera(id);
    const after = sceneAt(now().piece, 0).camera.position;
    after.forEach((x, k) => expect(x).toBeCloseTo(before[k], 6));
    const { frames } = now().piece.loop;
    sceneAt(now().piece, frames).camera.position.forEach((x, k) => expect(x).toBeCloseTo(after[k], 6));
    expect(proveSeam(now().piece).findings).toEqual([]);
    expect(readPiece(writePiece(now().piece)).ok).toBe(true);
  });
  it('"round" goes all the way at one speed', () => {
    put({ azimuth: 10 }, { loop: { frames: 36, fps: 25 } });
    moveCamera('round');
    for (const f of [0, 9, 18, 27]) expect(at(f).azimuth).toBeCloseTo(10 + 10 * f, 6);
  });
  it('"still" stops where the camera is at the playhead', () => {
    moveCamera('sway');
    useEditor.setState({ frame: 7 });
    const there = at(7).azimuth;
    moveCamera('still');
    expect(camera().azimuth).toBe(there);
  });
});

describe('focus on a ribbon', () => {
  it('keeps the middle of the chosen one sharp; with none chosen nothing changes', () => {
    const [first] = [newRibbon('box', 0, 'Vane')];
    put({}, { ribbons: [{ ...first, steps: [newStep('box'), newStep('place', { shift: [0, 0, 2] })] }] });
    useEditor.setState({ ribbonId: null });
    const before = now().piece;
    focusOnRibbon();
    expect(now().piece).toBe(before);
    useEditor.setState({ ribbonId: first.id });
    focusOnRibbon();
    expect(sceneAt(now().piece, 0).camera.focusOn).toBe(first.id);
    expect(now().history.past.at(-1)?.label ?? '').toContain('Vane');
  });
});

// Keeps the reference honest: three's own matrix of a camera that looks along −z is the identity.
it('the reference camera is the one three.js documents', () => {
  const plain = new PerspectiveCamera(50, 1);
  plain.updateMatrixWorld();
  expect(plain.matrixWorldInverse.equals(new Matrix4())).toBe(true);
});
