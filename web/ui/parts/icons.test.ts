import { stepKinds } from '@maypole/core/steps/index';
import { describe, expect, it } from 'vitest';
import { hasIcon } from './icons';

describe('pictures of steps', () => {
  it('there is one for every step that is declared', () => {
    expect(stepKinds.filter((k) => !hasIcon(k.icon)).map((k) => k.kind)).toEqual([]);
    expect(hasIcon('nothing of the kind')).toBe(false);
  });
});
