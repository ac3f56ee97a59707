import { newItem, newPiece, type Item, type Piece, type Values } from '../piece/piece';
import { sceneList, type SceneList } from '../scene/index';

/** A scene to begin with: everything but the camera, which stays. */
interface Scene {
  readonly name: string;
  readonly lists: Partial<Record<Exclude<SceneList, 'cameras'>, readonly (readonly [kind: string, values: Values])[]>>;
}

/** Height below a form of usual size, in metres. */
const FLOOR = -1.4;

const scenes: readonly Scene[] = [
  {
    name: 'Paper studio',
    lists: {
      lights: [
        ['area', { place: [-3, 4, 4], width: 3, height: 3, strength: 320, kelvin: 5200 }],
        ['sky', { strength: 35, above: '#DDE6EE', horizon: '#F3EFE8', below: '#B9AFA0', shade: true }],
      ],
      ground: [['sweep', { height: FLOOR, colour: '#DAD3C6' }]],
      picture: [['look', { curve: 'own', contrast: 16 }]],
    },
  },
  {
    name: 'Evening on a wet floor',
    lists: {
      lights: [
        [
          'gradient',
          {
            strength: 110,
            colours: [
              { at: 0, colour: '#6E5A66' },
              { at: 0.36, colour: '#B98A86' },
              { at: 0.5, colour: '#F7BE92' },
              { at: 0.6, colour: '#F3E2D2' },
              { at: 1, colour: '#5F86BE' },
            ],
          },
        ],
        ['area', { place: [-4, 4, 4], width: 2.5, height: 2.5, strength: 240, kelvin: 5200 }],
      ],
      backdrop: [['round', { blur: 10, strength: 80 }]],
      ground: [['catcher', { height: FLOOR, mirror: 50, rough: 22, strength: 45, colour: '#1A1018' }]],
      picture: [
        ['bloom', { amount: 20, from: 1.1 }],
        ['vignette', { amount: 22, reach: 60 }],
      ],
    },
  },
  {
    name: 'Noon',
    lists: {
      lights: [['daylight', { height: 42, turn: -50, haze: 2.6, shade: true }]],
      backdrop: [['round', { blur: 15 }]],
      ground: [['catcher', { height: FLOOR, strength: 55, colour: '#20242C' }]],
      picture: [['look', { curve: 'own', contrast: 10, saturation: 106 }]],
    },
  },
  {
    name: 'Lamp in the fog',
    lists: {
      lights: [
        ['spot', { place: [-3, 4.5, -2.5], strength: 520, cone: 42, kelvin: 3200, radius: 0.1 }],
        ['area', { place: [4, 2, -4], width: 3, height: 3, strength: 90, kelvin: 11_000 }],
        ['sky', { strength: 5, above: '#1B2E4A', horizon: '#0B1220', below: '#05070C' }],
      ],
      backdrop: [['gradient', { from: '#0E1825', to: '#04060A', shape: 'round' }]],
      ground: [['catcher', { height: FLOOR, mirror: 45, rough: 30, strength: 60, colour: '#020305' }]],
      air: [['haze', { density: 5, reach: 7, forward: 35 }]],
      picture: [
        ['bloom', { amount: 40, spread: 70, from: 1 }],
        ['vignette', { amount: 30, reach: 60 }],
        ['grain', { amount: 3 }],
      ],
    },
  },
  {
    name: 'Before black',
    lists: {
      lights: [
        ['area', { place: [-4, 2.5, -3], width: 1.2, height: 4, strength: 620, kelvin: 7000 }],
        ['area', { place: [4, 1.5, -2], width: 1, height: 4, strength: 380, kelvin: 3400 }],
        ['sky', { strength: 6, above: '#26303C', horizon: '#101418', below: '#050505' }],
      ],
      backdrop: [['colour', { colour: '#050608' }]],
      picture: [
        ['bloom', { amount: 55, spread: 70, from: 0.7 }],
        ['vignette', { amount: 35, reach: 60 }],
      ],
    },
  },
];

function itemsOf(list: SceneList, items: readonly (readonly [string, Values])[]): Item[] {
  return items.map(([kind, values]) => newItem(sceneList(list).kinds.get(kind), values));
}

/** Scenes that come with Maypole, as looks. */
export function shippedScenes(): Piece[] {
  return scenes.map(({ name, lists }) => {
    const plain = newPiece(name);
    const given = Object.entries(lists).map(([list, items]) => [list, itemsOf(list as SceneList, items)]);
    return { ...plain, scene: { ...plain.scene, ...(Object.fromEntries(given) as Partial<Piece['scene']>) } };
  });
}
