import { APPROXIMATIONS } from './approximations';
import { noiseKinds } from '../noise/kinds/index';
import { FACE_WORDS } from '../finish/surface';
import { finishParts } from '../finish/parts/index';
import { outputs } from '../output/index';
import { renderings } from '../output/rendering';
import { patterns } from '../pattern/kinds/index';
import { layerParams } from '../pattern/layer';
import { channelOf } from '../finish/part';
import { sceneListNames, sceneLists } from '../scene/index';
import { stepGroups, stepKinds } from '../steps/index';
import { colourMotionKinds } from '../time/colours/index';
import { CONSTANTS, FUNCTIONS, VARIABLES } from '../time/formula/words';
import { SEGMENTS } from '../time/keys/key';
import { motionKinds } from '../time/motions/index';
import type { SceneKind } from '../scene/kind';
import type { Param, Params } from '../declare/params';

function range(p: Param): string {
  switch (p.type) {
    case 'number':
    case 'vector':
      return (
        `${p.min} … ` +
        `${p.max}${p.unit ? ` ${p.unit}` : ''}${p.integer ? ', whole' : ''}${p.type === 'number' && p.counts ? ', closes when whole' : ''}`
      );
    case 'choice':
      return p.options.map((o) => `\`${o.value}\``).join(', ');
    case 'switch':
      return '`true`, `false`';
    case 'colour':
      return '`#rrggbb`';
    case 'formula':
      return 'mathematics, see Formulas';
    case 'source':
      return 'address of a value';
    case 'keys':
      return 'list of keys, see Keys';
    case 'curve':
      return '4 to 128 heights 0 … 1';
    case 'points':
      return '3 to 64 points `[x, y, z]` in m';
    case 'text':
      return `up to ${p.max} characters`;
    case 'ribbon':
      return 'identifier of a ribbon';
    case 'asset':
      return 'fingerprint of a file';
    case 'stops':
      return '1 to 16 of `{ at, colour }`';
  }
}

function usual(p: Param): string {
  if (p.type === 'vector') return `[${p.default.join(', ')}]`;
  if (p.type === 'curve' || p.type === 'points' || p.type === 'stops' || p.type === 'keys')
    return `${p.default.length} of them`;
  return `${p.default}`;
}

function table(params: Params): string {
  if (Object.keys(params).length === 0) return 'There is nothing to set.';
  const all = Object.entries(params);
  const rows = all
    .filter(([, p]) => !p.sparse)
    .map(
      ([name, p]) =>
        `| \`${name}\` | ${p.title} | ${usual(p)} | ${range(p)} | ${'moves' in p && p.moves ? 'yes' : ''} | ${p.help} |`,
    );
  const sparse = all.filter(([, p]) => p.sparse);
  if (sparse.length > 0)
    rows.push(`| \`${sparse[0][0]}\` … \`${sparse.at(-1)![0]}\` | | | | | and so on; left out until they are set |`);
  return [
    '| name | title | default | range | moves | what it does |',
    '| --- | --- | --- | --- | --- | --- |',
    ...rows,
  ].join('\n');
}

/** The reference page of everything that is declared, as Markdown. */
export function describeAll(): string {
  const parts = [
    '# Reference',
    '',
    'Made from the declarations in `core/` by `npm run docs`; not edited by hand. Where “moves” says yes, a ' +
      'motion may stand in the place of the number.',
  ];
  for (const { group, title } of stepGroups) {
    parts.push('', `## ${title}`);
    for (const kind of stepKinds.filter((k) => k.group === group))
      parts.push('', `### ${kind.title} (\`${kind.kind}\`)`, '', kind.help, '', table(kind.params));
  }
  parts.push(
    '',
    '## Motions',
    '',
    'A motion is written in the place of a number, as `{ "motion": kind, … }`. All settings are plain values.',
  );
  for (const m of motionKinds) parts.push('', `### ${m.title} (\`${m.kind}\`)`, '', m.help, '', table(m.params));
  parts.push('', '## Motions of colours', '', 'Written in the place of a colour.');
  for (const m of colourMotionKinds) parts.push('', `### ${m.title} (\`${m.kind}\`)`, '', m.help, '', table(m.params));
  parts.push(
    '',
    '## Keys',
    '',
    'A key is `{ "at": 0 … 1, "value": number, "to": way }`. After the last key comes the first one again, ' +
      'higher by what the motion adds per loop. Ways to the next key:',
    '',
    ...SEGMENTS.map((x) => `- \`${x.value}\`: ${x.help}`),
  );
  parts.push(
    '',
    'An eased key may have `ease: [speeding up, slowing down]`, shares from 0 to 1; keys of free segments ' +
      'have tangents `out` and `in`, each `[share of the loop, change of value]`, and `broken` where the two ' +
      'point apart.',
  );
  parts.push('', '## Formulas', '', 'Variables:', '', ...VARIABLES.map((v) => `- \`${v.name}\`: ${v.help}`));
  parts.push(
    '',
    `Constants: ${Object.keys(CONSTANTS)
      .map((c) => `\`${c}\``)
      .join(', ')}. Functions: ${Object.keys(FUNCTIONS)
      .map((f) => `\`${f}\``)
      .join(', ')}. Operators: \`+ - * / ^\`, brackets, comparisons, \`condition ? a : b\`.`,
  );
  parts.push(
    '',
    '## Timing and layers',
    '',
    'Any motion of a number may also have `timing: { shift, way, times, rest }` (`shift` and `rest` are ' +
      'shares of the loop; `way` is `on`, `back`, `there` or `sway`; `times` is whole) and `layers`, a list of ' +
      '`{ how: "add" or "multiply", on, motion }`, which act in their order. `seamMeant: true` tells the seam ' +
      'check that a pause or a change of speed at the seam is wanted.',
  );
  parts.push(
    '',
    '## Noise',
    '',
    'Every kind closes over the loop by construction.',
    '',
    ...noiseKinds.map((k) => `- \`${k.kind}\`: ${k.help}`),
  );
  const declared = (
    kinds: readonly { readonly kind: string; readonly title: string; readonly help: string; readonly params: Params }[],
  ) => {
    for (const k of kinds) parts.push('', `### ${k.title} (\`${k.kind}\`)`, '', k.help, '', table(k.params));
  };
  parts.push(
    '',
    '## Finish',
    '',
    'Parts of a finish, which act in their order. A finish is `{ id, of, on, parts }`; kinds of faces it can be `of`:',
    '',
    ...Object.entries(FACE_WORDS).map(([of, w]) => `- \`${of}\`: ${w.help}`),
  );
  declared(finishParts.all);
  parts.push(
    '',
    '## Patterns',
    '',
    'How a value of a finish goes over the surface. A part may have `patterns: [{ id, kind, on, of, values ' +
      '}]`, layers in the order in which they lie; `of` names the value:',
    '',
    ...finishParts.all.map(
      (p) =>
        `- \`${p.kind}\`: ${Object.keys(p.channels ?? {})
          .map((n) => `\`${n}\``)
          .join(', ')}`,
    ),
    '',
    'Every layer has these besides those of its kind, with `rampStops` and `rampMix` on a colour and ' +
      '`rampLow` and `rampHigh` on a number:',
    '',
    table(
      Object.fromEntries(
        ['colour', 'roughness'].flatMap((name) =>
          Object.entries(layerParams(patterns.get('even'), channelOf(finishParts.get('base'), name)!.target)),
        ),
      ),
    ),
  );
  declared(patterns.all);
  for (const list of sceneListNames) {
    if (sceneLists[list].kinds.all.length === 0) continue;
    parts.push('', `## Scene: ${sceneLists[list].title.toLowerCase()} (\`${list}\`)`);
    declared(sceneLists[list].kinds.all as readonly SceneKind<unknown>[]);
  }
  parts.push('', '## What the picture can only come near to', '', ...APPROXIMATIONS.map((a) => `- ${a}`));
  parts.push('', '## Rendering', '', 'Frames are made once for all outputs of a piece.');
  declared(renderings.all.map((r) => ({ ...r, help: 'How they are made, and what their files are called.' })));
  parts.push('', '## Outputs');
  declared(outputs.all);
  return `${parts.join('\n')}\n`;
}
