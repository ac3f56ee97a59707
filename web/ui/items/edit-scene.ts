import { newItem, type Item } from '@maypole/core/piece/piece';
import { sceneList, type SceneList, type SceneListKind } from '@maypole/core/scene/index';
import { useEditor } from '../state/store';

/** The list with an item switched. If only one may be on, another goes off or takes its place. */
export function switched(
  items: readonly Item[],
  id: string,
  on: boolean,
  { kinds, oneOn }: SceneListKind,
): readonly Item[] {
  if (!oneOn) {
    const one = (x: Item) => kinds.get(x.kind).one;
    const alone = on && one(items.find((x) => x.id === id)!);
    return items.map((x) => (x.id === id ? { ...x, on } : alone && one(x) === alone && x.on ? { ...x, on: false } : x));
  }
  const next = on ? id : items.find((x) => x.id !== id)?.id;
  return items.map((x) => ({ ...x, on: x.id === next }));
}

/** Changes one list of the scene. */
export function editScene(list: SceneList, label: string, to: (old: readonly Item[]) => readonly Item[]): void {
  useEditor.getState().edit(label, (p) => ({ ...p, scene: { ...p.scene, [list]: to(p.scene[list]) } }));
}

/** Adds an item of a kind; in a list of one, it replaces the other. */
export function addSceneItem(list: SceneList, kind: string): void {
  const listKind = sceneList(list);
  const declared = listKind.kinds.get(kind);
  if (listKind.most === 1) return editScene(list, declared.title, () => [newItem(declared)]);
  editScene(list, `Add ${declared.title.toLowerCase()}`, (old) => {
    if (old.length >= listKind.most) return old;
    const item = newItem(declared);
    return switched([...old, item], item.id, true, listKind);
  });
}
