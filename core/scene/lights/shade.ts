import { number, toggle } from '../../declare/params';

/** Ambient occlusion of an environment. */
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

/** Strength 0…1; absent for none. */
export function shadeOf(v: { readonly shade: boolean; readonly shadeAmount: number }): { readonly shade?: number } {
  return v.shade ? { shade: v.shadeAmount / 100 } : {};
}
