import { adding, lacquer, matt, metal, pieceOf, ribbon, wave, type Start } from './start';

/** Starting points with one body. */
export const bodies: readonly Start[] = [
  {
    id: 'bumps',
    title: 'Bumps by a noise',
    help: 'A ball whose skin swells and sinks as a noise moves through it.',
    first: [
      { step: 'displace', param: 'height' },
      { step: 'displace', param: 'scale' },
      { step: 'displace', param: 'noise' },
    ],
    make: () =>
      pieceOf({
        name: 'Bumps',
        camera: { azimuth: 24, elevation: 14, distance: 6.4, focalLength: 62 },
        scene: {
          lights: [
            ['studio', { strength: 70, shade: true }],
            ['area', { place: [-3, 3.4, 2.6], width: 1.6, height: 1.6, strength: 210, kelvin: 4800 }],
          ],
          backdrop: [['gradient', { from: '#F3E3D3', to: '#DFA98C', shape: 'round' }]],
          picture: [['look', { curve: 'own', contrast: 12 }]],
        },
        ribbons: [
          ribbon(
            0,
            'Body',
            [
              ['geodesic', { radius: 1.15, frequency: 44 }],
              ['displace', { height: 0.42, scale: 0.75, rate: 0.9, direction: 'normal', contrast: 1.4 }],
              ['smooth', { iterations: 3 }],
            ],
            lacquer('#C9472F', 42),
          ),
        ],
      }),
  },
  {
    id: 'rings',
    title: 'Nested rings',
    help: 'A ring in a ring in a ring; each turns further than the one around it.',
    first: [
      { step: 'nest', param: 'copies' },
      { step: 'nest', param: 'turn' },
      { step: 'torus', param: 'pipeRadius' },
    ],
    make: () =>
      pieceOf({
        name: 'Nested rings',
        frames: 150,
        camera: { azimuth: 32, elevation: 14, distance: 6.9, focalLength: 62 },
        scene: {
          lights: [
            ['studio', { strength: 85 }],
            ['area', { place: [3, 3, 3], width: 2, height: 2, strength: 190, kelvin: 4200 }],
          ],
          backdrop: [['gradient', { from: '#27344A', to: '#0F1522', shape: 'round' }]],
          picture: [
            ['bloom', { amount: 25, from: 1.1 }],
            ['vignette', { amount: 22 }],
          ],
        },
        ribbons: [
          ribbon(
            0,
            'Rings',
            [
              ['torus', { ringRadius: 1.75, pipeRadius: 0.12, ringSegments: 140, pipeSegments: 28 }],
              ['nest', { copies: 7, size: 0.82, turn: [adding(18, 360), 10, 22] }],
            ],
            metal('#E3B778', 24),
          ),
          ribbon(1, 'Core', [['geodesic', { radius: wave(0.2, 0.26), frequency: 18 }]], lacquer('#D9483B', 30)),
        ],
      }),
  },
  {
    id: 'glass',
    title: 'Glass in glass',
    help: 'A clear bead round a coloured one round a core. Look at it in true light.',
    first: [
      { step: 'displace', param: 'height' },
      { step: 'twist', param: 'angle' },
      { step: 'geodesic', param: 'radius' },
    ],
    make: () =>
      pieceOf({
        name: 'Glass in glass',
        frames: 125,
        camera: { azimuth: 20, elevation: 10, distance: 6.6, focalLength: 64 },
        scene: {
          lights: [
            ['studio', { strength: 105 }],
            ['area', { place: [-2.6, 2.4, -2.4], width: 1, height: 3, strength: 260, kelvin: 7200 }],
          ],
          backdrop: [['gradient', { from: '#E9F0EE', to: '#A9C3C1', shape: 'line' }]],
        },
        ribbons: [
          ribbon(
            0,
            'Outer bead',
            [
              ['geodesic', { radius: 1.3, frequency: 36 }],
              ['displace', { height: 0.28, scale: 1.3, rate: 0.6 }],
            ],
            [
              ['base', { colour: '#FFFFFF', roughness: 0 }],
              ['metal', { metalness: 0 }],
              ['glass', { transmission: 100, ior: 1.45, thickness: 1.6, tint: '#E6FAF4', tintAfter: 2.4 }],
            ],
          ),
          ribbon(
            1,
            'Inner bead',
            [
              ['box', { size: [0.95, 0.95, 0.95], rounding: 0.2, segments: 20 }],
              ['twist', { angle: wave(-35, 75) }],
              ['spin', { axis: 'free', direction: [1, 2, 0.5], turns: 1 }],
            ],
            [
              ['base', { colour: '#FFFFFF', roughness: 4 }],
              ['metal', { metalness: 0 }],
              ['glass', { transmission: 100, ior: 1.6, thickness: 0.7, tint: '#E8713A', tintAfter: 0.6 }],
            ],
          ),
          ribbon(2, 'Core', [['geodesic', { radius: 0.2, frequency: 14 }]], metal('#F4E2B8', 12)),
        ],
      }),
  },
  {
    id: 'drops',
    title: 'Drops that meet',
    help: 'Drops that drift, run into each other and part again.',
    first: [
      { step: 'drops', param: 'count' },
      { step: 'drops', param: 'melt' },
      { step: 'drops', param: 'rate' },
    ],
    make: () =>
      pieceOf({
        name: 'Drops',
        frames: 150,
        camera: { azimuth: 15, elevation: 12, distance: 7, focalLength: 60 },
        scene: {
          lights: [
            ['studio', { strength: 120 }],
            ['area', { place: [2.8, 2.2, 2.6], width: 1.2, height: 2.4, strength: 170, kelvin: 8200 }],
          ],
          backdrop: [['gradient', { from: '#2E2A44', to: '#15131F', shape: 'round' }]],
          picture: [['bloom', { amount: 30, from: 1 }]],
        },
        ribbons: [
          ribbon(
            0,
            'Drops',
            [['drops', { count: 11, radius: 0.62, reach: [2.1, 1.8, 1.5], melt: 40, rate: 1.3, seed: 6, cells: 72 }]],
            [
              ['base', { colour: '#C8CCDD', roughness: 8 }],
              ['metal', { metalness: 100 }],
              ['film', { film: 85, thickness: 430, ior: 1.4 }],
            ],
          ),
        ],
      }),
  },
  {
    id: 'knot',
    title: 'Ribbon in a knot',
    help: 'A band drawn along a closed curve, sliding through itself.',
    first: [
      { step: 'curve', param: 'curve' },
      { step: 'sweep', param: 'twist' },
      { step: 'sweep', param: 'width' },
    ],
    make: () =>
      pieceOf({
        name: 'Knot',
        camera: { azimuth: 28, elevation: 30, distance: 7.4, focalLength: 60 },
        scene: {
          lights: [
            ['studio', { strength: 90, shade: true }],
            ['area', { place: [-3, 4, 2], width: 2, height: 2, strength: 200, kelvin: 5400 }],
          ],
          backdrop: [['gradient', { from: '#EFE7D6', to: '#D8C9A9', shape: 'line' }]],
          picture: [['look', { curve: 'own', contrast: 14 }]],
        },
        ribbons: [
          ribbon(
            0,
            'Band',
            [
              ['curve', { curve: 'knot', p: 2, q: 3, size: 1.25, depth: 0.5, along: 260 }],
              ['sweep', { profile: 'circle', width: 0.6, flatness: 34, twist: 1, start: adding(0, 360), along: 460 }],
            ],
            lacquer('#2F7C8C', 30),
          ),
        ],
      }),
  },
  {
    id: 'net',
    title: 'Net of wires',
    help: 'Every edge of a body as a rod, every corner as a joint, breathing.',
    first: [
      { step: 'geodesic', param: 'frequency' },
      { step: 'displace', param: 'height' },
      { step: 'struts', param: 'rod' },
    ],
    make: () => {
      const net = ribbon(
        0,
        'Net',
        [
          ['geodesic', { radius: 1.45, frequency: 5 }],
          ['displace', { height: 0.5, scale: 1.1, rate: 0.7, direction: 'radial' }],
          ['spin', { axis: 'y', turns: 1, symmetry: 5 }],
          ['struts', { rod: 0.022, joint: 0.065, sides: 10 }],
        ],
        matt('#20242C'),
      );
      const [main] = net.finishes;
      return pieceOf({
        name: 'Net',
        camera: { azimuth: 20, elevation: 16, distance: 7.6, focalLength: 60 },
        scene: {
          lights: [
            ['studio', { strength: 90 }],
            ['area', { place: [-3, 3, 3], width: 2, height: 2, strength: 170, kelvin: 5000 }],
          ],
          backdrop: [['gradient', { from: '#DCE6E2', to: '#8FB0AC', shape: 'line' }]],
        },
        ribbons: [
          {
            ...net,
            finishes: [
              main,
              { ...ribbon(0, '', [['box']], metal('#2A2E36', 35)).finishes[0], of: 'rods' },
              { ...ribbon(0, '', [['box']], lacquer('#E8A317', 30)).finishes[0], of: 'joints' },
            ],
          },
          ribbon(1, 'Heart', [['geodesic', { radius: wave(0.42, 0.56), frequency: 20 }]], lacquer('#D9483B', 34)),
        ],
      });
    },
  },
];
