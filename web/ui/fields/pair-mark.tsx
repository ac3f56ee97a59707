'use client';

import { pairingOf } from '@maypole/core/piece/pair';
import type { Address } from '@maypole/core/piece/addresses';
import { Link2, Unlink2 } from 'lucide-react';
import { PictureButton } from '../parts/buttons';
import { togglePairing } from '../state/actions';
import { useEditor } from '../state/store';

/** On both ribbons of a pair: whether a value is shared, and one click to part or join it. */
export function PairMark({ address, label }: { address: Address; label: string }) {
  const pairing = useEditor((s) => (s.piece.ribbons.some((r) => r.twin) ? pairingOf(s.piece, address) : 'none'));
  if (pairing === 'none') return null;
  const linked = pairing === 'linked';
  return (
    <PictureButton
      label={linked ? `${label} goes along with its pair; part it` : `${label} is apart from its pair; join it again`}
      minW="24px"
      h="5"
      color={linked ? 'leafText' : 'muted'}
      onClick={() => togglePairing(label, address)}
    >
      {linked ? <Link2 size={13} /> : <Unlink2 size={13} />}
    </PictureButton>
  );
}
