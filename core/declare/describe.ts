import { noiseKinds } from '../noise/kinds/index';
import { finishParams } from '../scene/finish';
import { sceneParts } from '../scene/scene';
import { stepGroups, stepKinds } from '../steps/index';
import { motionKinds } from '../time/motions/index';
import type { Param, Params } from './params';

function range(p: Param): string {
  if (p.type === 'number' || p.type === 'vector') return `${p.min} … ${p.max}${p.unit ? ` ${p.unit}` : ''}${p.integer ? ', whole' : ''}`;
  if (p.type === 'choice') return p.options.map((o) => `\`${o.value}\``).join(', ');
  return p.type === 'switch' ? '`true`, `false`' : '`#rrggbb`';
}

function table(params: Params): string {
  const rows = Object.entries(params).map(
    ([name, p]) => `| \`${name}\` | ${p.title} | ${p.type === 'vector' ? `[${p.default.join(', ')}]` : `${p.default}`} | ${range(p)} | ${'moves' in p && p.moves ? 'yes' : ''} | ${p.help} |`,
  );
  return ['| name | title | default | range | moves | what it does |', '| --- | --- | --- | --- | --- | --- |', ...rows].join('\n');
}

/** The reference page of everything that is declared, as Markdown. */
export function describeAll(): string {
  const parts = ['# Reference', '', 'Made from the declarations in `core/` by `npm run docs`; not edited by hand. Where “moves” says yes, a motion may stand in the place of the number.'];
  for (const { group, title } of stepGroups) {
    parts.push('', `## ${title}`);
    for (const kind of stepKinds.filter((k) => k.group === group)) parts.push('', `### ${kind.title} (\`${kind.kind}\`)`, '', kind.help, '', table(kind.params));
  }
  parts.push('', '## Motions', '', 'A motion is written in the place of a number, as `{ "motion": kind, … }`. All settings are plain values.');
  for (const m of motionKinds) parts.push('', `### ${m.title} (\`${m.kind}\`)`, '', m.help, '', table(m.params));
  parts.push('', '## Noise', '', 'Every kind closes over the loop by construction.', '', ...noiseKinds.map((k) => `- \`${k.kind}\`: ${k.help}`));
  parts.push('', '## Finish', '', table(finishParams), '', '## Scene');
  for (const [name, part] of Object.entries(sceneParts)) parts.push('', `### ${part.title} (\`${name}\`)`, '', table(part.params));
  return `${parts.join('\n')}\n`;
}
