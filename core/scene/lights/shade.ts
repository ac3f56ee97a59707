import { number, toggle } from '../../declare/params';

/** Whether light from all round is kept out of corners. */
export const shadeParams = {
  shade: toggle('Shade', false, 'Darkens what other faces shield from the light all round (ambient occlusion).'),
  shadeAmount: number('Shade depth', 100, 'How dark that is.', {
    unit: '%',
    min: 0,
    max: 100,
    soft: [0, 100],
    step: 1,
    shownWhen: { param: 'shade', is: [true] },
  }),
} as const;

/** As drawers take it: 0…1, absent where nothing is kept out. */
export function shadeOf(v: { readonly shade: boolean; readonly shadeAmount: number }): { readonly shade?: number } {
  return v.shade ? { shade: v.shadeAmount / 100 } : {};
}
