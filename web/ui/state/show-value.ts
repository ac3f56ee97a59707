import { addressKey, type Address, type Owner } from '@maypole/core/piece/addresses';
import type { PatternDoc } from '@maypole/core/piece/piece';
import type { Piece } from '@maypole/core/piece/piece';
import { ownedAt } from '@maypole/core/piece/walk';
import { patternKey } from '../pattern/edit-patterns';
import { useEditor } from './store';

/** Opens the container of a value, and its motion. */
export function showValue(address: Address): void {
  const { owner } = address;
  if (owner.type === 'output' || owner.type === 'render') return useEditor.setState({ drawer: 'deliver' });
  if (owner.type === 'scene') return useEditor.setState({ drawer: 'scene', motionOf: address });
  if (owner.item === '') return useEditor.setState({ ribbonId: owner.ribbon, alsoRibbons: [] });
  useEditor.setState((s) => ({
    ribbonId: owner.ribbon,
    alsoRibbons: [],
    motionOf: address,
    openSteps: { ...s.openSteps, ...opened(s.piece, owner) },
  }));
}

/** What must be open to show the rows of an owner. */
function opened(piece: Piece, owner: Owner & { readonly ribbon: string }): Record<string, boolean> {
  if (owner.type === 'step') return { [owner.item]: true };
  const card = { [`${owner.ribbon}/finish`]: true };
  const found = owner.type === 'pattern' ? ownedAt(piece, owner) : undefined;
  return found?.part
    ? { ...card, [owner.item]: true, [patternKey(found.part.id, (found.item as PatternDoc).of)]: true }
    : card;
}

/** Opens the card of a step or a pattern and scrolls to it. */
export function showOwner(owner: Owner): void {
  if (owner.type !== 'step' && owner.type !== 'pattern') return;
  useEditor.setState((s) => ({
    ribbonId: owner.ribbon,
    alsoRibbons: [],
    ...(owner.type === 'step' ? { held: owner.item } : {}),
    openSteps: { ...s.openSteps, ...opened(s.piece, owner) },
  }));
  requestAnimationFrame(() =>
    document.querySelector(`[data-step="${CSS.escape(owner.item)}"]`)?.scrollIntoView({ block: 'nearest' }),
  );
}

/** Opens or closes the lane of a value. */
export function toggleLane(address: Address): void {
  const key = addressKey(address);
  useEditor.setState((s) => ({ openLane: s.openLane === key ? null : key }));
}
