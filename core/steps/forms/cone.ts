import { number } from '../../declare/params';
import { arc, lathe, straight, type ProfilePoint } from '../../shape/lathe';
import { brief, checkFaces, defineStep } from '../step';
import { stretch, stretched } from './stretch';

/** A cone, a truncated cone or a cylinder with rounded rims. */
export const cone = defineStep({
  kind: 'cone',
  title: 'Cone',
  help: 'A cone, pointed or cut off, with sharp or rounded rims.',
  icon: 'cone',
  group: 'form',
  params: {
    bottom: number('Bottom radius', 1, 'At its foot.', { unit: 'm', min: 0, max: 1000, soft: [0, 4] }),
    top: number('Top radius', 0, 'At its top; 0 is a point.', { unit: 'm', min: 0, max: 1000, soft: [0, 4] }),
    height: number('Height', 2, 'From foot to top.', { unit: 'm', min: 0, max: 1000, soft: [0, 6] }),
    rounding: number('Rounding', 0, 'Radius of its rims.', { unit: 'm', min: 0, max: 1000, soft: [0, 1] }),
    sides: number('Sides', 40, 'Faces round the axis.', { min: 3, max: 2000, soft: [3, 128], integer: true }),
    rows: number('Rows', 12, 'Faces along the side.', { min: 1, max: 1000, soft: [1, 64], integer: true }),
    capRings: number('Cap rings', 4, 'Rings of faces on each cap.', { min: 1, max: 200, soft: [1, 24], integer: true }),
    roundSteps: number('Round steps', 5, 'Faces across a rounded rim.', {
      min: 1,
      max: 100,
      soft: [1, 16],
      integer: true,
    }),
    stretch,
  },
  summary: (v) => `${brief(v.bottom)} → ${brief(v.top)} × ${brief(v.height)} m`,
  evaluate(v) {
    checkFaces(v.sides * (v.rows + 2 * v.capRings + 2 * v.roundSteps), 'Use fewer sides, rows or rings.');
    // A cone of no height has no side; a tiny height stands in.
    const height = Math.max(v.height, 1e-6);
    const half = height / 2;
    // Angle of the side above the horizontal, outwards; its normal is perpendicular to it.
    const lean = Math.atan2(height, v.top - v.bottom);
    const normal = lean - Math.PI / 2;
    const profile: ProfilePoint[] = [];
    /** Half the angle between cap and side gives the distance of the tangent points from the rim. */
    const rim = (radius: number, y: number, up: boolean) => {
      const angle = up ? lean : Math.PI - lean;
      // Limits: not past the axis on the cap, and not past the middle of the side.
      const room = Math.min(radius, height / Math.sin(lean) / 2);
      const round = Math.min(v.rounding, room * Math.tan(angle / 2));
      return { round, inset: round / Math.tan(angle / 2), y, radius };
    };
    const [low, high] = [rim(v.bottom, -half, false), rim(v.top, half, true)];
    const side = (along: number): ProfilePoint => ({
      r: v.bottom + along * Math.cos(lean),
      y: -half + along * Math.sin(lean),
    });
    const length = height / Math.sin(lean);
    if (v.bottom > 0)
      profile.push(...straight({ r: 0, y: -half }, { r: v.bottom - low.inset, y: -half }, v.capRings, 1));
    if (low.round > 0)
      profile.push(...arc(v.bottom - low.inset, -half + low.round, low.round, -Math.PI / 2, normal, v.roundSteps));
    profile.push(...straight(side(low.inset), side(length - high.inset), v.rows));
    if (high.round > 0)
      profile.push(...arc(v.top - high.inset, half - high.round, high.round, normal, Math.PI / 2, v.roundSteps));
    if (v.top > 0)
      profile.push(
        ...straight({ r: v.top - high.inset, y: half }, { r: 0, y: half }, v.capRings, high.round > 0 ? 0 : 2),
      );
    profile.push({ r: 0, y: half });
    if (low.round > 0) for (let i = 0; i < v.capRings && v.bottom > 0; i++) profile[i] = { ...profile[i], group: 0 };
    return stretched(lathe(profile, v.sides), v.stretch);
  },
});
