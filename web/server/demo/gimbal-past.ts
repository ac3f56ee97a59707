import { finishParts } from '@maypole/core/finish/parts/index';
import { newItem, type Piece, type RibbonDoc, type StepDoc } from '@maypole/core/piece/piece';
import { lights } from '@maypole/core/scene/index';

interface Version {
  readonly piece: Piece;
  readonly mark?: string;
}

type Values = StepDoc['values'];

const inRibbon = (piece: Piece, name: string, change: (r: RibbonDoc) => RibbonDoc): Piece => ({
  ...piece,
  ribbons: piece.ribbons.map((r) => (r.name === name ? change(r) : r)),
});
const inStep = (piece: Piece, kind: string, values: Values): Piece =>
  inRibbon(piece, 'Rings', (r) => ({
    ...r,
    steps: r.steps.map((s) => (s.kind === kind ? { ...s, values: { ...s.values, ...values } } : s)),
  }));
const inBase = (piece: Piece, ribbon: string, values: Values): Piece =>
  inRibbon(piece, ribbon, (r) => ({
    ...r,
    finishes: r.finishes.map((f, i) =>
      i > 0 ? f : { ...f, parts: f.parts.map((p) => (p.kind === 'base' ? { ...p, values: { ...p.values, ...values } } : p)) },
    ),
  }));
const withLights = (piece: Piece, list: Piece['scene']['lights']): Piece => ({
  ...piece,
  scene: { ...piece.scene, lights: list },
});

/**
 * The history of Gimbal, derived backwards from its current state: a plain ring in studio light, nested, set turning,
 * made of brass, lit by the evening; and two takes that went another way.
 */
export function gimbalPast(now: Piece): { saves: readonly Version[]; takes: readonly Required<Version>[] } {
  const studio = newItem(lights.get('studio'), {}, 'studio01');
  const noBob: Piece = { ...now, ribbons: now.ribbons.filter((r) => r.name !== 'Bob') };
  const inStudio = withLights(noBob, [studio]);
  const plain = inRibbon(inStudio, 'Rings', (r) => ({
    ...r,
    finishes: r.finishes.map((f) => ({
      ...f,
      parts: [newItem(finishParts.get('base'), { colour: '#D9483B' }, 'base0001'), newItem(finishParts.get('metal'), {}, 'metal001')],
    })),
  }));
  const still = inStep(plain, 'nest', { turn: [24, 12, 30] });
  const three = inStep(still, 'nest', { copies: 3, turn: [0, 12, 0] });
  const alone = inRibbon(three, 'Rings', (r) => ({ ...r, steps: r.steps.filter((s) => s.kind !== 'nest') }));
  const thick = inStep(alone, 'torus', { pipeRadius: 0.3 });
  return {
    saves: [
      { piece: thick },
      { piece: alone },
      { piece: three },
      { piece: still },
      { piece: plain, mark: 'It turns' },
      { piece: inStudio },
      { piece: withLights(noBob, now.scene.lights.slice(0, 1)) },
      { piece: noBob, mark: 'Evening light' },
      { piece: now },
    ],
    takes: [
      {
        mark: 'Ten thin rings',
        piece: inStep(inStep(now, 'nest', { copies: 10, size: 0.88 }), 'torus', { pipeRadius: 0.07 }),
      },
      { mark: 'Silver and red', piece: inBase(inBase(now, 'Rings', { colour: '#C9CFD6' }), 'Bob', { colour: '#D9483B' }) },
    ],
  };
}
