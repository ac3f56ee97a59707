import { newPiece, newRibbon, newStep, type Piece, type RibbonDoc } from '../piece/piece';
import { starts } from '../starts/index';
import { lacquer, pieceOf, ribbon, wave } from '../starts/start';
import { proveSeam } from '../seam/proof';

/** What a walk knows of the editor while it waits for something to be done. */
export interface Seen {
  readonly piece: Piece;
  /** The piece as it was when the walk reached this stop. */
  readonly before: Piece;
  readonly playing: boolean;
  readonly drawer: string | null;
  readonly light: string;
  readonly sheet: boolean;
  /** Whether a variation of the sheet is open close up. */
  readonly closer: boolean;
  /** Number of named saves and takes. */
  readonly takes: number;
  /** Number of renders of this piece. */
  readonly renders: number;
}

export interface Stop {
  readonly words: string;
  /** CSS selector of what it points at; absent for text alone. */
  readonly at?: string;
  /** Whether it has been done; if absent, the reader continues by hand. */
  readonly until?: (seen: Seen) => boolean;
}

export interface Walk {
  readonly id: string;
  readonly title: string;
  readonly help: string;
  /** The piece that it begins with. */
  make(): Piece;
  readonly stops: readonly Stop[];
}

const has = (piece: Piece, kind: string) => piece.ribbons.some((r) => r.steps.some((s) => s.kind === kind));
const group = (piece: Piece, test: (kind: string) => boolean) =>
  piece.ribbons.some((r) => r.steps.some((s) => test(s.kind)));
const valuesOf = (piece: Piece, kind: string) =>
  JSON.stringify(piece.ribbons.flatMap((r) => r.steps.filter((s) => s.kind === kind).map((s) => s.values)));
const gaps = (piece: Piece) => proveSeam(piece).findings.filter((f) => f.kind === 'gap').length;
const finishOf = (r: RibbonDoc | undefined) => JSON.stringify(r?.finishes);

const CHIP = '[data-testid="seam-chip"]';
const ADD_STEP = '[data-opens="add-step"]';
const DELIVER = '[data-opens="deliver"]';

/** A body whose twist ends half way: a gap to repair. */
const torn = () =>
  pieceOf({
    name: 'Make it close',
    camera: { azimuth: 25, elevation: 18, distance: 6.4, focalLength: 58 },
    scene: { backdrop: [['gradient', { from: '#EFE7DA', to: '#CDBFA8', shape: 'round' }]] },
    ribbons: [
      ribbon(
        0,
        'Bar',
        [
          ['box', { size: [0.9, 2.2, 0.9], rounding: 0.1, segments: 24 }],
          ['twist', { angle: wave(-60, 120, { turns: 1.3 }) }],
          ['spin', { axis: 'y', turns: 1 }],
        ],
        lacquer('#2F7C8C', 34),
      ),
    ],
  });

const one = (name: string, form: string): Piece => ({
  ...newPiece(name),
  ribbons: [
    {
      ...newRibbon(form, 0, 'Bead'),
      steps: [newStep(form, form === 'geodesic' ? { radius: 0.25, frequency: 12 } : {})],
    },
  ],
});

const fromStart = (id: string, name: string): Piece => ({ ...starts.find((s) => s.id === id)!.make(), name });

/** Short walks through the real interface: each stop points at something and waits until it has been done. */
export const walks: readonly Walk[] = [
  {
    id: 'first-loop',
    title: 'First loop',
    help: 'A form, a step, a movement, and a file of it.',
    make: () => newPiece('First loop'),
    stops: [
      {
        words: 'A loop begins with a form. Press “Choose a form” and pick one you like.',
        at: '[data-opens="first-form"]',
        until: ({ piece }) => piece.ribbons.length > 0,
      },
      {
        words: 'Steps shape the form, one after the other. Press “Add step” and choose Displace: a noise that moves.',
        at: ADD_STEP,
        until: ({ piece }) => has(piece, 'displace'),
      },
      {
        words: 'It moves by itself, and comes back to where it began. Press Play, or the Space bar.',
        at: '[aria-label="Play"], [aria-label="Pause"]',
        until: ({ playing }) => playing,
      },
      {
        words: 'Now make it yours: change Height or Scale of Displace. Drag the number, or type one.',
        at: '[data-step-kind="displace"]',
        until: ({ piece, before }) => valuesOf(piece, 'displace') !== valuesOf(before, 'displace'),
      },
      {
        words: 'This always says whether the loop closes. Open it.',
        at: CHIP,
        until: ({ drawer }) => drawer === 'seam',
      },
      {
        words: 'Closed: the frame after the last is frame 0. Now press “Deliver”.',
        at: DELIVER,
        until: ({ drawer }) => drawer === 'deliver',
      },
      {
        words: 'Press “Add output” and choose a movie.',
        at: '[data-opens="add-output"]',
        until: ({ piece }) => piece.outputs.length > 0,
      },
      {
        words: 'Press “Render”. The frames fill in above; go on working meanwhile.',
        at: '[data-does="render"]',
        until: ({ renders }) => renders > 0,
      },
      { words: 'That is your first loop. The file is in the list when it is done, with a report on its seam.' },
    ],
  },
  {
    id: 'make-it-close',
    title: 'Make it close',
    help: 'Finding what jolts, and mending it.',
    make: torn,
    stops: [
      {
        words: 'Press Play and watch the bar: once a loop it jolts.',
        at: '[aria-label="Play"], [aria-label="Pause"]',
        until: ({ playing }) => playing,
      },
      { words: 'The chip says so, too. Open the seam check.', at: CHIP, until: ({ drawer }) => drawer === 'seam' },
      {
        words:
          'It names the value that does not come back: the twist swings 1.3 times a loop. Choose a repair, such as ' +
          'a whole number of turns.',
        at: '[data-testid="gap"]',
        until: ({ piece }) => gaps(piece) === 0,
      },
      { words: 'Closed. Whole numbers of turns close; so do keys that end on the value they began with.', at: CHIP },
    ],
  },
  {
    id: 'many',
    title: 'Many',
    help: 'Copies, and how they differ.',
    make: () => one('Many', 'geodesic'),
    stops: [
      {
        words: 'One bead. Press “Add step” and choose a repeat: Rings, or Grid.',
        at: ADD_STEP,
        until: ({ piece }) => group(piece, (k) => k.startsWith('repeat-') || k === 'scatter'),
      },
      {
        words: 'Turn its counts and distances until you like it.',
        at: '[data-step-kind^="repeat-"], [data-step-kind="scatter"]',
        until: ({ piece, before }) => JSON.stringify(piece.ribbons) !== JSON.stringify(before.ribbons),
      },
      {
        words: 'Copies can differ. Add the step Vary.',
        at: ADD_STEP,
        until: ({ piece }) => has(piece, 'vary'),
      },
      {
        words: 'In Vary, choose what differs and by what: by a noise it moves through them as a wind does.',
        at: '[data-step-kind="vary"]',
        until: ({ piece, before }) => valuesOf(piece, 'vary') !== valuesOf(before, 'vary'),
      },
      { words: 'Several Varys work together: one for size, one for colour, one for how late each copy is.' },
    ],
  },
  {
    id: 'surface-and-light',
    title: 'Surface and light',
    help: 'A finish, a set of lights, and true light.',
    make: () => fromStart('bumps', 'Surface and light'),
    stops: [
      {
        words:
          'The finish says what the surface is made of. Open it at the end of the steps, and change a value or add ' +
          'a part: metal, glass, film.',
        at: '[data-testid="finish"]',
        until: ({ piece, before }) => finishOf(piece.ribbons[0]) !== finishOf(before.ribbons[0]),
      },
      {
        words: 'Lights and camera are in the scene. Open it.',
        at: '[data-opens="scene"]',
        until: ({ drawer }) => drawer === 'scene',
      },
      {
        words: 'Add a light, or change one. Everything here can move as well.',
        at: '[data-drawer]',
        until: ({ piece, before }) => JSON.stringify(piece.scene) !== JSON.stringify(before.scene),
      },
      {
        words: 'Quick light is drawn at once. Switch to true light, in which every ray is followed.',
        at: '[aria-label="Light"]',
        until: ({ light }) => light === 'true',
      },
      { words: 'It refines while you look. Any change starts it again; Shift T goes back to quick light.' },
    ],
  },
  {
    id: 'deliver',
    title: 'Deliver',
    help: 'Outputs, an estimate, the queue, and the report.',
    make: () => fromStart('rings', 'Deliver'),
    stops: [
      { words: 'This loop is ready. Press “Deliver”.', at: DELIVER, until: ({ drawer }) => drawer === 'deliver' },
      {
        words: 'Add an output: what it is for stands beside each.',
        at: '[data-opens="add-output"]',
        until: ({ piece }) => piece.outputs.length > 0,
      },
      {
        words: 'Estimate draws a few frames and says what all of them would take. Try it, or go on.',
        at: '[data-does="estimate"]',
      },
      { words: 'Press “Render”.', at: '[data-does="render"]', until: ({ renders }) => renders > 0 },
      {
        words: 'The file is read back when it is done, and its seam is checked. Its report opens in the list.',
        at: '[data-testid="render"]',
      },
    ],
  },
  {
    id: 'explore',
    title: 'Explore',
    help: 'A sheet of variations, takes, and the past.',
    make: () => fromStart('knot', 'Explore'),
    stops: [
      {
        words: 'Open the sheet: many loops, each this one with other values.',
        at: '[data-opens="sheet"]',
        until: ({ sheet }) => sheet,
      },
      {
        words: 'They fill in, nearest to now first; those that look alike are left out. Press one.',
        at: '[data-testid="sheet"]',
        until: ({ closer }) => closer,
      },
      {
        words: 'Keep it as a take: it waits beside the piece under a name.',
        at: '[aria-label="Closer"]',
        until: ({ takes }) => takes > 0,
      },
      {
        words: 'Close the sheet, and open the history.',
        at: '[data-opens="history"]',
        until: ({ sheet, drawer }) => !sheet && drawer === 'history',
      },
      {
        words: 'Every save and take is here. Press one to look at it; bring it back whole, or one value of it.',
        at: '[data-drawer]',
      },
    ],
  },
];

export const walkOf = (id: string): Walk | undefined => walks.find((w) => w.id === id);
