import { lacquer, metal, pieceOf, ribbon, type Start } from './start';

/** Starting points with a path through space. */
export const journeys: readonly Start[] = [
  {
    id: 'journey',
    title: 'Body on a journey',
    help: 'Bodies that follow one another along a wandering closed path, nose first.',
    first: [
      { step: 'journey', param: 'bends' },
      { step: 'journey', param: 'reach' },
      { step: 'repeat-line', param: 'count' },
    ],
    make: () =>
      pieceOf({
        name: 'Journey',
        frames: 150,
        camera: { azimuth: 25, elevation: 26, distance: 9.6, focalLength: 56 },
        scene: {
          lights: [
            ['daylight', { height: 38, turn: -50, haze: 2.4, strength: 85, shade: true }],
            ['sky', { strength: 30, above: '#BFD6E6', horizon: '#F4EDE0', below: '#8A8577' }],
          ],
          backdrop: [['gradient', { from: '#E4EEF1', to: '#A6C6D2', shape: 'line' }]],
        },
        ribbons: [
          ribbon(
            0,
            'Fish',
            [
              ['geodesic', { radius: 0.27, frequency: 12 }],
              ['place', { stretch: [0.6, 0.75, 1.9] }],
              ['journey', { path: 'wander', reach: [4.4, 2.4, 4.4], bends: 2, seed: 3 }],
              ['repeat-line', { count: 28, by: 'spacing', way: [0, 0, 0] }],
              ['vary', { what: 'late', by: 'order', lateFrom: 0, lateTo: 100 }],
              ['vary', { what: 'colour', by: 'order', colourFrom: '#E2583E', colourTo: '#F4C25B', runs: 'back' }],
            ],
            lacquer('#E2583E', 30),
          ),
        ],
      }),
  },
  {
    id: 'tunnel',
    title: 'Inside a tunnel',
    help: 'A flight through frames that never ends: each has moved on to the place of the next.',
    first: [
      { step: 'repeat-rings', param: 'count' },
      { step: 'repeat-rings', param: 'advance' },
      { step: 'torus', param: 'pipeRadius' },
    ],
    make: () =>
      pieceOf({
        name: 'Tunnel',
        camera: { azimuth: 180, elevation: 0, distance: 2.2, focalLength: 20, target: [8, 0, -1.2] },
        scene: {
          lights: [
            [
              'gradient',
              {
                strength: 60,
                colours: [
                  { at: 0, colour: '#26304A' },
                  { at: 0.5, colour: '#E79A74' },
                  { at: 1, colour: '#6C86B8' },
                ],
              },
            ],
            ['ball', { place: [7.6, 0.6, 3], radius: 0.3, strength: 160, kelvin: 3600 }],
          ],
          backdrop: [['colour', { colour: '#0D1220' }]],
          air: [['fog', { colour: '#E9A57C', density: 12, begins: 2 }]],
          picture: [['bloom', { amount: 30, from: 1 }]],
        },
        ribbons: [
          ribbon(
            0,
            'Frames',
            [
              ['torus', { ringRadius: 1.15, pipeRadius: 0.12, ringSegments: 4, pipeSegments: 4 }],
              ['place', { turn: [90, 0, 0] }],
              ['repeat-rings', { count: 72, radius: 8, advance: 3 }],
              ['vary', { what: 'turn', by: 'order', turnFrom: [0, 0, 0], turnTo: [0, 0, 360] }],
            ],
            metal('#D7B48A', 30),
          ),
        ],
      }),
  },
  {
    id: 'hall',
    title: 'Endless hall',
    help: 'A lattice that goes on for ever, and slides by one cell a loop.',
    first: [
      { step: 'minimal', param: 'surface' },
      { step: 'minimal', param: 'thickness' },
      { step: 'minimal', param: 'travels' },
    ],
    make: () =>
      pieceOf({
        name: 'Endless hall',
        camera: { azimuth: 30, elevation: 20, distance: 6.8, focalLength: 60 },
        scene: {
          lights: [
            ['studio', { strength: 75, shade: true }],
            ['area', { place: [-3, 3, 2], width: 2, height: 2, strength: 230, kelvin: 4600 }],
          ],
          backdrop: [['gradient', { from: '#E8E4F0', to: '#A9A2C4', shape: 'round' }]],
        },
        ribbons: [
          ribbon(
            0,
            'Lattice',
            [
              [
                'minimal',
                { surface: 'gyroid', size: 1.35, period: 1.15, thickness: 24, travels: [0, 1, 0], cells: 72 },
              ],
            ],
            lacquer('#6A55A5', 34),
          ),
        ],
      }),
  },
];
