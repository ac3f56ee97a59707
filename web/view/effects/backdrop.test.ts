import { provideAsset } from '@maypole/core/assets/store';
import type { BackdropAt } from '@maypole/core/scene/kind';
import type { Node, TextureNode } from 'three/webgpu';
import { describe, expect, it } from 'vitest';
import { BackdropNodes } from './backdrop';
import { imageTexture } from './image-textures';

const whole = { width: 1, height: 1 };
const image = (file: string): BackdropAt => ({ type: 'image', colour: '#000000', file, fit: 'cover' });

/** The textures that a shader reads. */
function texturesIn(node: object): readonly unknown[] {
  const found = new Set<unknown>();
  (node as Node).traverse((n) => {
    if ((n as TextureNode).isTextureNode) found.add((n as TextureNode).value);
  });
  return [...found];
}

describe('a picture behind everything', () => {
  for (const name of ['one', 'other'])
    provideAsset(name, { type: 'image', image: { width: 2, height: 1, values: new Uint8Array(8).fill(200) } });

  it('is there from the first drawing, though the shader that shows it is made after it was filled in', () => {
    const backdrop = new BackdropNodes();
    backdrop.fill(image('one'), 1, [20, 10], whole);
    const [shown, light] = [backdrop.shown(), backdrop.light()];
    expect(texturesIn(shown)).toEqual([imageTexture('one')]);
    expect(texturesIn(light)).toEqual([imageTexture('one')]);
    expect(imageTexture('one')).not.toBe(imageTexture(''));
    // Shaders that are there go over to another, and one that is made later has it, too.
    backdrop.fill(image('other'), 1, [20, 10], whole);
    for (const node of [shown, light, backdrop.shown()]) expect(texturesIn(node)).toEqual([imageTexture('other')]);
  });
});
