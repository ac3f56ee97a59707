import { lacquer, matt, metal, pieceOf, ribbon, wave, type Start } from './start';

/** Starting points with many bodies. */
export const many: readonly Start[] = [
  {
    id: 'field',
    title: 'Swaying field',
    help: 'Hundreds of blades that a wind goes through.',
    first: [
      { step: 'vary', param: 'turnTo' },
      { step: 'vary', param: 'scale' },
      { step: 'repeat-grid', param: 'rows' },
    ],
    make: () =>
      pieceOf({
        name: 'Swaying field',
        camera: { azimuth: 38, elevation: 24, distance: 9.4, focalLength: 58, target: [0, 0.35, 0] },
        scene: {
          lights: [
            ['daylight', { height: 24, turn: -70, haze: 3, strength: 90, shade: true }],
            ['sky', { strength: 25, above: '#A8C4DE', horizon: '#F1E3C8', below: '#5C5A4A' }],
          ],
          backdrop: [['gradient', { from: '#F6E9CF', to: '#E2C590', shape: 'line' }]],
          picture: [['look', { curve: 'own', contrast: 10 }]],
        },
        ribbons: [
          ribbon(
            0,
            'Blades',
            [
              ['cone', {}],
              ['place', { shift: [0, 0.6, 0], stretch: [0.14, 0.7, 0.14] }],
              ['bend', { angle: 26, hold: 'start', towards: 90 }],
              ['repeat-grid', { layout: 'hex', columns: 24, rows: 24, spacing: [0.22, 1, 0.22] }],
              [
                'vary',
                { what: 'turn', by: 'noise', turnFrom: [-8, 0, -8], turnTo: [18, 25, 48], scale: 1.9, rate: 1.1 },
              ],
              ['vary', { what: 'size', by: 'noise', sizeFrom: 0.75, sizeTo: 1.3, scale: 0.7, rate: 0, seed: 4 }],
              [
                'vary',
                {
                  what: 'colour',
                  by: 'noise',
                  colourFrom: '#4F7A35',
                  colourTo: '#E8B23C',
                  scale: 1.6,
                  rate: 0,
                  seed: 9,
                },
              ],
            ],
            matt('#7A9A44', 55),
          ),
        ],
      }),
  },
  {
    id: 'columns',
    title: 'Columns in step',
    help: 'A ring of columns; each does what the one before it did a moment ago.',
    first: [
      { step: 'place', param: 'stretch' },
      { step: 'repeat-rings', param: 'count' },
      { step: 'repeat-rings', param: 'later' },
    ],
    make: () =>
      pieceOf({
        name: 'Columns',
        camera: { azimuth: 30, elevation: 34, distance: 10, focalLength: 62, target: [0, 0.3, 0] },
        scene: {
          lights: [
            ['area', { place: [-4, 5, 3], width: 3, height: 3, strength: 330, kelvin: 5000 }],
            ['sky', { strength: 45, above: '#DDE6EE', horizon: '#F3EFE8', below: '#B9AFA0', shade: true }],
          ],
          ground: [['sweep', { height: -1, colour: '#D8D5CE' }]],
        },
        ribbons: [
          ribbon(
            0,
            'Columns',
            [
              ['box', { size: [0.34, 1.3, 0.34], rounding: 0.06, segments: 6 }],
              ['place', { shift: [0, wave(-0.25, 0.95), 0] }],
              ['repeat-rings', { count: 18, rings: 3, more: 6, radius: 0.95, gap: 0.62, later: 5 }],
              [
                'vary',
                {
                  what: 'colour',
                  by: 'place',
                  axis: 'out',
                  lowAt: 0.8,
                  highAt: 2.4,
                  colourFrom: '#D9483B',
                  colourTo: '#F2C9A1',
                },
              ],
            ],
            lacquer('#D9483B', 38),
          ),
        ],
      }),
  },
  {
    id: 'rolling',
    title: 'Rolling bodies',
    help: 'Cubes that roll one behind the other; each ends where the next began.',
    first: [
      { step: 'tumble', param: 'steps' },
      { step: 'repeat-line', param: 'later' },
      { step: 'bevel', param: 'width' },
    ],
    make: () =>
      pieceOf({
        name: 'Rolling',
        frames: 125,
        camera: { azimuth: 32, elevation: 22, distance: 11, focalLength: 56, target: [0, 0.3, 0] },
        scene: {
          lights: [
            ['area', { place: [-3, 4, 4], width: 3, height: 3, strength: 320, kelvin: 5200 }],
            ['sky', { strength: 40, above: '#DDE6EE', horizon: '#F3EFE8', below: '#B9AFA0', shade: true }],
          ],
          ground: [['sweep', { height: 0, colour: '#C9D6D2' }]],
        },
        ribbons: [
          ribbon(
            0,
            'Cubes',
            [
              // Rounded after it has rolled: it rolls over the edges of the plain box.
              ['box', { size: [0.9, 0.9, 0.9], segments: 1 }],
              ['tumble', { steps: 2, bodies: 6, rest: 14 }],
              ['bevel', { width: 0.05, segments: 3 }],
              ['repeat-line', { count: 3, by: 'spacing', way: [0, 0, 1.5], later: 20 }],
              ['vary', { what: 'colour', by: 'order', colourFrom: '#E8A317', colourTo: '#D9483B' }],
            ],
            lacquer('#E8A317', 34),
          ),
        ],
      }),
  },
  {
    id: 'stream',
    title: 'Stream in a current',
    help: 'Grains that are born, carried by a swirling current, and die, without end.',
    first: [
      { step: 'stream', param: 'flow' },
      { step: 'stream', param: 'flowScale' },
      { step: 'stream', param: 'count' },
    ],
    make: () =>
      pieceOf({
        name: 'Stream',
        camera: { azimuth: 20, elevation: 6, distance: 9, focalLength: 55, target: [0, 0, 0] },
        scene: {
          lights: [
            ['studio', { strength: 80 }],
            ['area', { place: [-3, 3, -2], width: 2, height: 3, strength: 160, kelvin: 8500 }],
          ],
          backdrop: [['gradient', { from: '#1E3B4A', to: '#0B141D', shape: 'round' }]],
          picture: [['bloom', { amount: 30, from: 0.9 }]],
        },
        ribbons: [
          ribbon(
            0,
            'Grains',
            [
              ['geodesic', { radius: 0.1, frequency: 3 }],
              [
                'stream',
                {
                  from: 'disc',
                  source: [0, -1.7, 0],
                  width: 1.1,
                  count: 700,
                  life: 1,
                  speed: 2.4,
                  cone: 14,
                  current: 'curl',
                  flow: 1.5,
                  flowScale: 1.1,
                  flowRate: 0.6,
                  size: 1,
                  sizeSpread: 55,
                  tinted: true,
                  young: '#F6C667',
                  old: '#E2583E',
                },
              ],
            ],
            lacquer('#F6C667', 30),
          ),
        ],
      }),
  },
  {
    id: 'pendulums',
    title: 'Pendulums',
    help: 'A row of hanging balls, each a little later, so that waves run along it.',
    first: [
      { step: 'place', param: 'turn' },
      { step: 'repeat-line', param: 'later' },
      { step: 'repeat-line', param: 'count' },
    ],
    make: () => {
      const later = { what: 'late', by: 'order', lateFrom: 0, lateTo: 100 } as const;
      const swinging = { pivot: wave(-32, 32, { turns: 1 }) };
      const row = { count: 17, spacing: 1, by: 'spacing', way: [0.3, 0, 0] } as const;
      const line = { count: row.count, by: 'spacing', way: row.way } as const;
      return pieceOf({
        name: 'Pendulums',
        camera: { azimuth: 42, elevation: 12, distance: 9.4, focalLength: 58, target: [0, -0.15, 0] },
        scene: {
          lights: [
            ['studio', { strength: 80, shade: true }],
            ['area', { place: [-2, 4, 3], width: 2.4, height: 2.4, strength: 220, kelvin: 5000 }],
          ],
          backdrop: [['gradient', { from: '#F2E7DF', to: '#C7A9A0', shape: 'line' }]],
        },
        ribbons: [
          ribbon(
            0,
            'Bobs',
            [
              ['geodesic', { radius: 0.17, frequency: 14 }],
              ['place', { shift: [0, -2.1, 0] }],
              ['place', { turn: [swinging.pivot, 0, 0] }],
              ['place', { shift: [0, 1.1, 0] }],
              ['repeat-line', line],
              ['vary', later],
              ['vary', { what: 'colour', by: 'order', colourFrom: '#D9483B', colourTo: '#3A5FA8', runs: 'once' }],
            ],
            lacquer('#D9483B', 26),
          ),
          ribbon(
            1,
            'Rods',
            [
              ['cylinder', {}],
              ['place', { stretch: [0.012, 1, 0.012], shift: [0, -1, 0] }],
              ['place', { turn: [swinging.pivot, 0, 0] }],
              ['place', { shift: [0, 1.1, 0] }],
              ['repeat-line', line],
              ['vary', later],
            ],
            metal('#5B5F66', 30),
          ),
        ],
      });
    },
  },
];
