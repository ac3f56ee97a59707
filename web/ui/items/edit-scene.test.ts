import { switched } from '@maypole/core/piece/adding';
import { cameraOf, newItem, newPiece } from '@maypole/core/piece/piece';
import { readPiece, writePiece } from '@maypole/core/piece/read';
import { lights, sceneList, sceneListNames, type SceneList } from '@maypole/core/scene/index';
import { beforeEach, describe, expect, it } from 'vitest';
import { useEditor } from '../state/store';
import { addSceneItem, editScene } from './edit-scene';

const now = () => useEditor.getState();
const scene = () => now().piece.scene;
const on = (list: SceneList) => scene()[list].filter((x) => x.on);

beforeEach(() => now().open('id', newPiece('Scene'), 1));

describe('lists of the scene', () => {
  it('of one have another kind in place of the one that is there', () => {
    addSceneItem('backdrop', 'gradient');
    expect(scene().backdrop.map((b) => b.kind)).toEqual(['gradient']);
    addSceneItem('backdrop', 'clear');
    expect(scene().backdrop.map((b) => b.kind)).toEqual(['clear']);
  });
  it('end where there are as many as there may be', () => {
    const most = sceneList('ground').most;
    const [{ kind }] = sceneList('ground').kinds.all;
    for (let i = 0; i < most + 3; i++) addSceneItem('ground', kind);
    expect(scene().ground).toHaveLength(most);
  });
  it('have one surroundings on at a time: what is added takes over, the other stays and is off', () => {
    editScene('lights', 'None', () => []);
    addSceneItem('lights', 'studio');
    addSceneItem('lights', 'spot');
    addSceneItem('lights', 'sky');
    expect(scene().lights.map((l) => [l.kind, l.on])).toEqual([
      ['studio', false],
      ['spot', true],
      ['sky', true],
    ]);
    const studio = scene().lights[0].id;
    editScene('lights', 'Switch', (old) => switched(old, studio, true, sceneList('lights')));
    expect(on('lights').map((l) => l.kind)).toEqual(['studio', 'spot']);
    // Off is off: nothing else comes on for it.
    editScene('lights', 'Switch', (old) => switched(old, studio, false, sceneList('lights')));
    expect(on('lights').map((l) => l.kind)).toEqual(['spot']);
  });
  it('have one camera that is looked through, always', () => {
    const first = cameraOf(now().piece).id;
    addSceneItem('cameras', scene().cameras[0].kind);
    expect(on('cameras')).toHaveLength(1);
    const second = cameraOf(now().piece).id;
    expect(second).not.toBe(first);
    // Switched off, the other one takes over.
    editScene('cameras', 'Switch', (old) => switched(old, second, false, sceneList('cameras')));
    expect(cameraOf(now().piece).id).toBe(first);
    editScene('cameras', 'Switch', (old) => switched(old, second, true, sceneList('cameras')));
    expect(on('cameras').map((c) => c.id)).toEqual([second]);
  });
  it('that have one item that is on keep no second one on, however it is asked for', () => {
    const items = ['studio', 'sky', 'gradient', 'panorama'].map((kind) => newItem(lights.get(kind)));
    let list: readonly (typeof items)[0][] = items.map((x) => ({ ...x, on: false }));
    for (const { id } of [...items, ...[...items].reverse()]) {
      list = switched(list, id, true, sceneList('lights'));
      expect(list.filter((x) => x.on).map((x) => x.id)).toEqual([id]);
    }
  });
  it.each(sceneListNames.flatMap((list) => sceneList(list).kinds.all.map(({ kind }) => [list, kind] as const)))(
    '%s: a fresh %s gives a document that is taken, and is undone',
    (list, kind) => {
      const before = now().piece;
      addSceneItem(list, kind);
      expect(scene()[list].some((x) => x.kind === kind && x.on)).toBe(true);
      expect(readPiece(writePiece(now().piece)).ok).toBe(true);
      now().undo();
      expect(now().piece).toEqual(before);
    },
  );
});
