import { addressKey, type Address } from '@maypole/core/piece/addresses';
import { useEditor } from './store';

/** Opens what a value stands in, and its motion. */
export function showValue(address: Address): void {
  const { owner } = address;
  if (owner.type === 'scene' || owner.type === 'output') return useEditor.setState({ drawer: 'scene', motionOf: address });
  if (owner.item === '') return useEditor.setState({ ribbonId: owner.ribbon, alsoRibbons: [] });
  useEditor.setState((s) => ({
    ribbonId: owner.ribbon,
    alsoRibbons: [],
    motionOf: address,
    openSteps: { ...s.openSteps, [owner.type === 'step' ? owner.item : `${owner.ribbon}/finish`]: true },
  }));
}

/** Opens or closes the lane of a value. */
export function toggleLane(address: Address): void {
  const key = addressKey(address);
  useEditor.setState((s) => ({ openLane: s.openLane === key ? null : key }));
}
