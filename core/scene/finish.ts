import { colour, number, toggle } from '../declare/params';

const rough = (title: string, value: number) => number(title, value, 'From mirror to chalk.', { unit: '%', min: 0, max: 100, soft: [0, 100], step: 1 });
const metal = (title: string, value: number) => number(title, value, 'From plastic to metal.', { unit: '%', min: 0, max: 100, soft: [0, 100], step: 1 });

/** Rows of a second finish, for a kind of face that steps make; folded away, and there only where it is wanted. */
function second<const S extends string>(slot: S, name: string, of: string, hex: string) {
  const shownWhen = { param: `${slot}Own`, is: [true] };
  return {
    [`${slot}Own`]: toggle(name, false, `A finish of their own for ${of}.`, { more: true }),
    [`${slot}Colour`]: { ...colour(`${name} colour`, hex, `Colour of ${of}.`), more: true, shownWhen },
    [`${slot}Roughness`]: { ...rough(`${name} roughness`, 45), more: true, shownWhen },
    [`${slot}Metalness`]: { ...metal(`${name} metalness`, 0), more: true, shownWhen },
  } as { readonly [K in `${S}Own`]: ReturnType<typeof toggle> } & { readonly [K in `${S}Colour`]: ReturnType<typeof colour> } & { readonly [K in `${S}Roughness` | `${S}Metalness`]: ReturnType<typeof number> };
}

/** The surface of a ribbon: a metal/rough physically based finish, as in glTF 2.0, and further ones for faces that steps make. */
export const finishParams = {
  colour: colour('Colour', '#D9483B', 'Colour of the surface.'),
  roughness: rough('Roughness', 45),
  metalness: metal('Metalness', 0),
  ...second('inside', 'Inside', 'inner sides of a shell and cut faces', '#F1EDE4'),
  ...second('rods', 'Rods', 'rods of struts and links', '#24262B'),
  ...second('joints', 'Joints', 'joints of struts', '#E8A317'),
} as const;
