'use client';

import { chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly lines: number;
  readonly max: number;
  readonly onChange: (value: string) => void;
}

const PAUSE_MS = 250;

/** Words of the user's own; what is written takes effect after a short pause and when the field is left. */
export function TextField({ label, value, lines, max, onChange }: Props) {
  const [draft, setDraft] = useState(value);
  const [shown, setShown] = useState(value);
  if (shown !== value) {
    setShown(value);
    setDraft(value);
  }
  useEffect(() => {
    if (draft === value) return;
    const timer = setTimeout(() => onChange(draft), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [draft, value, onChange]);
  return (
    <chakra.textarea
      aria-label={label}
      value={draft}
      rows={lines}
      maxLength={max}
      spellCheck={false}
      onChange={(e) => setDraft(e.target.value)}
      onBlur={() => draft !== value && onChange(draft)}
      onKeyDown={(e) => e.stopPropagation()}
      w="100%"
      px="2"
      py="1"
      bg="field"
      color="ink"
      borderRadius="field"
      fontSize="12.5px"
      lineHeight="1.35"
      resize="vertical"
      fontFamily={lines > 2 ? 'mono' : undefined}
    />
  );
}
