'use client';

import { chakra } from '@chakra-ui/react';

interface Props {
  readonly label: string;
  readonly text: string;
  readonly wrong: boolean;
  readonly selectAll: boolean;
  readonly onText: (text: string) => void;
  /** Where focus goes if it is taken: to the next value, the one before, or where the user has put it. */
  readonly onCommit: (focus: 1 | -1 | null) => void;
  readonly onCancel: () => void;
}

/** A number while it is typed. */
export function TypedNumber({ label, text, wrong, selectAll, onText, onCommit, onCancel }: Props) {
  return (
    <chakra.input
      aria-label={label}
      aria-invalid={wrong}
      autoFocus
      value={text}
      onFocus={(e) => selectAll && e.target.select()}
      onChange={(e) => onText(e.target.value)}
      onBlur={() => onCommit(null)}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === 'Enter') {
          e.preventDefault();
          onCommit(e.shiftKey ? -1 : 1);
        }
        if (e.key === 'Escape') onCancel();
      }}
      w="100%"
      h="24px"
      px="2"
      borderRadius="field"
      bg="raised"
      borderWidth="1px"
      borderColor={wrong ? 'poppy' : 'sky'}
      fontFamily="mono"
      fontSize="12px"
      fontWeight="600"
      outline="none"
    />
  );
}
