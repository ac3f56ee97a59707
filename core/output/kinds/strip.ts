import { number } from '../../declare/params';
import { defineOutput } from '../kind';

export const strip = defineOutput({
  kind: 'strip',
  title: 'Contact strip',
  help: 'Frames of the loop side by side',
  group: 'single',
  icon: 'strip',
  ending: 'png',
  params: {
    frames: number('Frames', 12, 'How many, evenly round the loop.', {
      min: 2,
      max: 200,
      soft: [4, 48],
      integer: true,
      moves: false,
    }),
    columns: number('In a row', 6, 'How many stand side by side.', {
      min: 1,
      max: 100,
      soft: [1, 12],
      integer: true,
      moves: false,
    }),
    width: number('Width of each', 320, 'Pixels.', {
      unit: 'px',
      min: 16,
      max: 2048,
      soft: [100, 800],
      integer: true,
      moves: false,
    }),
  },
  sheet: () => 'solid',
  refusal: ({ size, values: v }) => {
    const height = Math.ceil(v.frames / v.columns) * Math.round((v.width * size.height) / size.width);
    const width = Math.min(v.columns, v.frames) * v.width;
    return Math.max(width, height) > 16_384 || width * height > 100e6
      ? `The strip would be ${width} × ${height} pixels; take fewer frames or make each smaller.`
      : null;
  },
});
