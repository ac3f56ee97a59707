'use client';

import type { Owner } from '@maypole/core/piece/addresses';
import { useShallow } from 'zustand/react/shallow';
import { useEditor } from '../state/store';
import { SelectField } from './select-field';

/** One of the other ribbons of the piece. */
export function RibbonField({
  label,
  owner,
  value,
  onChange,
}: {
  label: string;
  owner: Owner;
  value: string;
  onChange: (value: string) => void;
}) {
  const own = 'ribbon' in owner ? owner.ribbon : '';
  const ribbons = useEditor(
    useShallow((s) => s.piece.ribbons.filter((r) => r.id !== own).flatMap((r) => [r.id, r.name])),
  );
  const options = [{ value: '', title: ribbons.length === 0 ? 'No other yet' : 'Choose…' }];
  for (let i = 0; i < ribbons.length; i += 2) options.push({ value: ribbons[i], title: ribbons[i + 1] });
  if (!options.some((o) => o.value === value)) options.push({ value, title: 'Gone' });
  return <SelectField label={label} value={value} options={options} onChange={onChange} />;
}
