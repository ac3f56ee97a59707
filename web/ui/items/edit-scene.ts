import { withCopyOf, withItem } from '@maypole/core/piece/adding';
import { newItem, type Item } from '@maypole/core/piece/piece';
import { sceneList, type SceneList } from '@maypole/core/scene/index';
import { useEditor } from '../state/store';

/** Changes one list of the scene. */
export function editScene(list: SceneList, label: string, to: (old: readonly Item[]) => readonly Item[]): void {
  useEditor.getState().edit(label, (p) => ({ ...p, scene: { ...p.scene, [list]: to(p.scene[list]) } }));
}

/** Adds an item of a kind; in a list of one, it replaces the other. */
export function addSceneItem(list: SceneList, kind: string): void {
  const listKind = sceneList(list);
  const declared = listKind.kinds.get(kind);
  const label = listKind.most === 1 ? declared.title : `Add ${declared.title.toLowerCase()}`;
  editScene(list, label, (old) => withItem(old, newItem(declared), listKind));
}

/** Adds another item with the same values right behind one; what follows within it follows within the copy. */
export function duplicateSceneItem(list: SceneList, id: string): void {
  const { title } = sceneList(list).kinds.get(useEditor.getState().piece.scene[list].find((x) => x.id === id)!.kind);
  editScene(list, `Duplicate ${title.toLowerCase()}`, (old) => withCopyOf(old, id, sceneList(list)));
}
