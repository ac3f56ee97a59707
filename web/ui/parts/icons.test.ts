import { finishParts } from '@maypole/core/finish/parts/index';
import { outputs } from '@maypole/core/output/index';
import { sceneListNames, sceneLists } from '@maypole/core/scene/index';
import { stepKinds } from '@maypole/core/steps/index';
import { describe, expect, it } from 'vitest';
import { hasIcon } from './icons';

describe('pictures of what is declared', () => {
  it('there is one for everything', () => {
    const all = [
      ...stepKinds,
      ...finishParts.all,
      ...outputs.all,
      ...sceneListNames.flatMap((list) => sceneLists[list].kinds.all),
    ];
    expect(all.filter((k) => !hasIcon(k.icon)).map((k) => k.kind)).toEqual([]);
    expect(all.length).toBeGreaterThan(stepKinds.length + 7);
    expect(hasIcon('M4 12h16')).toBe(true);
    expect(hasIcon('nothing of the kind')).toBe(false);
    expect(hasIcon('Moon')).toBe(false);
  });
});
