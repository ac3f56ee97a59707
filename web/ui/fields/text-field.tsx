'use client';

import { chakra } from '@chakra-ui/react';
import { FileUp } from 'lucide-react';
import { useEffect, useState } from 'react';
import { PlainButton } from '../parts/buttons';
import { tellTrouble } from '../parts/toasts';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly lines: number;
  readonly max: number;
  /** Extensions of text files that may be loaded; absent for none. */
  readonly file?: string;
  readonly onChange: (value: string) => void;
}

const PAUSE_MS = 250;

/** Free text; takes effect after a short pause and on blur. */
export function TextField({ label, value, lines, max, file, onChange }: Props) {
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
  const take = async (chosen: File | undefined) => {
    if (!chosen) return;
    const text = await chosen.text();
    if (text.length > max)
      return tellTrouble(`${chosen.name} has ${text.length} characters; the most is ${max}. Simplify the drawing.`);
    setDraft(text);
    onChange(text);
  };
  return (
    <>
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
      {file && (
        <PlainButton asChild size="xs" mt="1">
          <label>
            <FileUp size={13} />
            Choose a file
            <input
              type="file"
              hidden
              accept={file}
              aria-label={`File for ${label}`}
              onChange={(e) => {
                void take(e.target.files?.[0]);
                e.target.value = '';
              }}
            />
          </label>
        </PlainButton>
      )}
    </>
  );
}
