/**
 * Version 2 (each declared thing an item `{ id, kind, on, values }`): finishes are lists of parts,
 * the scene is lists of cameras, lights, backdrop, air and picture effects, `output` is `format`, and
 * there are outputs. Addresses that values follow are brought along. What chance a step has is that
 * which it had: steps of version 1 have none of their own (`chance: 0`). Written out in full, since a
 * migration must not change when declarations do.
 */

type Doc = Record<string, unknown>;

const isDoc = (x: unknown): x is Doc => typeof x === 'object' && x !== null && !Array.isArray(x);
const doc = (x: unknown): Doc => (isDoc(x) ? x : {});
const list = (x: unknown): unknown[] => (Array.isArray(x) ? x : []);

/** Where the values of a version 1 finish went: which finish, which part, under which name. */
const FINISH: Readonly<Record<string, readonly ['main' | 'inside' | 'rods' | 'joints', 'base' | 'metal', string]>> = {
  colour: ['main', 'base', 'colour'],
  roughness: ['main', 'base', 'roughness'],
  metalness: ['main', 'metal', 'metalness'],
  insideColour: ['inside', 'base', 'colour'],
  insideRoughness: ['inside', 'base', 'roughness'],
  insideMetalness: ['inside', 'metal', 'metalness'],
  rodsColour: ['rods', 'base', 'colour'],
  rodsRoughness: ['rods', 'base', 'roughness'],
  rodsMetalness: ['rods', 'metal', 'metalness'],
  jointsColour: ['joints', 'base', 'colour'],
  jointsRoughness: ['joints', 'base', 'roughness'],
  jointsMetalness: ['joints', 'metal', 'metalness'],
};

/** Defaults of a finish of a face kind. */
const DEFAULTS: Readonly<Record<string, Doc>> = {
  main: { colour: '#D9483B', roughness: 45 },
  inside: { colour: '#F1EDE4', roughness: 45 },
  rods: { colour: '#24262B', roughness: 45 },
  joints: { colour: '#E8A317', roughness: 45 },
};

/** Chance depended on the seed alone. */
const SAME_CHANCE = 0;

export function from1to2(old: unknown): unknown {
  const piece = doc(old);
  const taken = new Set<string>();
  for (const r of list(piece.ribbons).map(doc))
    for (const x of [r, ...list(r.steps).map(doc)]) if (typeof x.id === 'string') taken.add(x.id);
  const fresh = (name: string): string => {
    let id = name.slice(0, 56);
    for (let k = 2; taken.has(id); k++) id = `${name.slice(0, 56)}-${k}`;
    taken.add(id);
    return id;
  };
  const scene = doc(piece.scene);
  const [camera, light, backdrop] = ['camera', 'light', 'backdrop'].map(fresh);
  /** New addresses by the old ones without axis. */
  const moved = new Map<string, string>();
  const sceneItem = (part: string, id: string, kind: string) => {
    for (const name of Object.keys(doc(scene[part]))) moved.set(`scene/${part}/${name}`, `scene/${id}/${name}`);
    for (const name of ['azimuth', 'elevation', 'distance', 'focalLength', 'target', 'strength', 'turn', 'colour'])
      if (!moved.has(`scene/${part}/${name}`)) moved.set(`scene/${part}/${name}`, `scene/${id}/${name}`);
    return { id, kind, on: true, values: doc(scene[part]) };
  };
  const cameras = [sceneItem('camera', camera, 'orbit')];
  const lights = [sceneItem('light', light, 'studio')];
  const backdrops = [sceneItem('backdrop', backdrop, 'colour')];
  const ribbons = list(piece.ribbons).map((x) => {
    if (!isDoc(x)) return x;
    const { finish: before, ...rest } = x;
    if (before !== undefined && !isDoc(before)) return x;
    const id = String(x.id ?? '');
    const stored = doc(before);
    const of = (faces: string, part: string): Doc =>
      Object.fromEntries(
        Object.entries(FINISH).flatMap(([name, [f, p, now]]) =>
          f === faces && p === part ? [[now, stored[name] ?? DEFAULTS[faces][now] ?? 0]] : [],
        ),
      );
    const finishes = Object.keys(DEFAULTS).flatMap((faces) => {
      const own = faces === 'main' || stored[`${faces}Own`] === true;
      const touched = Object.keys(stored).some((name) => FINISH[name]?.[0] === faces);
      if (!own && !touched) return [];
      const name = `${id}-${faces}`;
      const parts = (['base', 'metal'] as const).map((part) => ({
        id: fresh(`${name}-${part}`),
        kind: part,
        on: true,
        values: of(faces, part),
      }));
      for (const [old, [f, part, now]] of Object.entries(FINISH))
        if (f === faces) moved.set(`${id}/finish/${old}`, `${id}/${parts[part === 'base' ? 0 : 1].id}/${now}`);
      return [{ id: fresh(name), of: faces, on: own, parts }];
    });
    const unknown = Object.keys(stored).filter((name) => !FINISH[name] && !/^(inside|rods|joints)Own$/.test(name));
    // Unknown values are kept in place, to be refused there, and not dropped.
    if (unknown.length > 0) (finishes[0].parts[0].values as Doc)[unknown[0]] = stored[unknown[0]];
    return { ...rest, finishes, steps: list(x.steps).map((s) => (isDoc(s) ? { ...s, chance: SAME_CHANCE } : s)) };
  });
  const { output, ...others } = piece;
  const renewed = {
    ...others,
    version: 2,
    format: output,
    scene: { ...unknownParts(scene), cameras, lights, backdrop: backdrops, air: [], picture: [] },
    outputs: [],
    ribbons,
  };
  return followed(renewed, moved);
}

function unknownParts(scene: Doc): Doc {
  return Object.fromEntries(Object.entries(scene).filter(([part]) => !['camera', 'light', 'backdrop'].includes(part)));
}

/** The document with every address in an `of` updated. */
function followed(x: unknown, moved: ReadonlyMap<string, string>): unknown {
  if (Array.isArray(x)) return x.map((v) => followed(v, moved));
  if (!isDoc(x)) return x;
  return Object.fromEntries(
    Object.entries(x).map(([name, v]) => {
      if (name !== 'of' || typeof v !== 'string' || x.motion !== 'follow') return [name, followed(v, moved)];
      const [, address, axis] = /^(.*?)(\.[xyz])?$/.exec(v)!;
      return [name, (moved.get(address) ?? address) + (axis ?? '')];
    }),
  );
}
