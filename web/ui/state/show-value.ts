import { addressKey, type Address, type Owner } from '@maypole/core/piece/addresses';
import { useEditor } from './store';

/** Opens what a value stands in, and its motion. */
export function showValue(address: Address): void {
  const { owner } = address;
  if (owner.type === 'scene' || owner.type === 'output')
    return useEditor.setState({ drawer: 'scene', motionOf: address });
  if (owner.item === '') return useEditor.setState({ ribbonId: owner.ribbon, alsoRibbons: [] });
  useEditor.setState((s) => ({
    ribbonId: owner.ribbon,
    alsoRibbons: [],
    motionOf: address,
    openSteps: { ...s.openSteps, [owner.type === 'step' ? owner.item : `${owner.ribbon}/finish`]: true },
  }));
}

/** Opens the card of a step and brings it into sight. */
export function showOwner(owner: Owner): void {
  if (owner.type !== 'step') return;
  useEditor.setState((s) => ({
    ribbonId: owner.ribbon,
    alsoRibbons: [],
    held: owner.item,
    openSteps: { ...s.openSteps, [owner.item]: true },
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
