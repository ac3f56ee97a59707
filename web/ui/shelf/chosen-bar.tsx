'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { Columns2, Download, RotateCcw, Tag, Trash2, X } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import type { PieceSummary } from '@/contract/pieces';
import { PictureButton, PlainButton } from '../parts/buttons';

interface Props {
  readonly pieces: readonly PieceSummary[];
  readonly binned: boolean;
  readonly edits: boolean;
  /** Existing labels, offered while typing. */
  readonly labels: readonly string[];
  readonly onLabel: (label: string) => void;
  readonly onUnlabel: (label: string) => void;
  readonly onBin: () => void;
  readonly onRestore: () => void;
  readonly onCompare: () => void;
  readonly onClear: () => void;
}

/** Actions on all selected pieces. */
export function ChosenBar({ pieces, binned, edits, labels, onClear, ...does }: Props) {
  const [label, setLabel] = useState('');
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (label.trim()) does.onLabel(label.trim());
    setLabel('');
  };
  // Labels that all of them have can be removed together.
  const shared = pieces[0]?.labels.filter((l) => pieces.every((p) => p.labels.includes(l))) ?? [];
  return (
    <Flex
      role="region"
      aria-label="Chosen pieces"
      position="fixed"
      left="50%"
      bottom="20px"
      transform="translateX(-50%)"
      zIndex="docked"
      align="center"
      wrap="wrap"
      gap="2"
      px="4"
      py="2.5"
      maxW="calc(100vw - 24px)"
      bg="raised"
      borderWidth="1px"
      borderColor="lineStrong"
      borderRadius="14px"
      boxShadow="float"
    >
      <Text role="status" fontSize="13.5px" fontWeight="600" mr="1">
        {pieces.length} chosen
      </Text>
      {edits && !binned && (
        <chakra.form display="flex" gap="1" onSubmit={add}>
          <chakra.input
            aria-label="Label for the chosen pieces"
            placeholder="Label"
            list="labels-there-are"
            maxLength={40}
            value={label}
            onChange={(e) => setLabel(e.target.value)}
            w="120px"
            h="30px"
            px="2"
            fontSize="13px"
            borderRadius="field"
            bg="field"
          />
          <datalist id="labels-there-are">
            {labels.map((l) => (
              <option key={l} value={l} />
            ))}
          </datalist>
          <PlainButton type="submit" size="xs" h="30px" disabled={!label.trim()}>
            <Tag size={14} /> Add label
          </PlainButton>
        </chakra.form>
      )}
      {edits &&
        !binned &&
        shared.map((l) => (
          <PlainButton
            key={l}
            size="xs"
            h="30px"
            aria-label={`Take the label ${l} away`}
            onClick={() => does.onUnlabel(l)}
          >
            {l} <X size={13} />
          </PlainButton>
        ))}
      {pieces.length === 2 && !binned && (
        <PlainButton size="xs" h="30px" onClick={does.onCompare}>
          <Columns2 size={14} /> Compare
        </PlainButton>
      )}
      <PlainButton size="xs" h="30px" onClick={() => exportAll(pieces)}>
        <Download size={14} /> Export
      </PlainButton>
      {edits && (
        <PlainButton size="xs" h="30px" onClick={binned ? does.onRestore : does.onBin}>
          {binned ? <RotateCcw size={14} /> : <Trash2 size={14} />}
          {binned ? 'Put back' : 'Delete'}
        </PlainButton>
      )}
      <Box>
        <PictureButton label="Choose none" onClick={onClear}>
          <X size={16} />
        </PictureButton>
      </Box>
    </Flex>
  );
}

/** One download each, a moment apart: browsers block many at once. */
function exportAll(pieces: readonly PieceSummary[]): void {
  pieces.forEach(({ id }, i) =>
    setTimeout(() => {
      const link = document.createElement('a');
      link.href = `/api/pieces/${id}/file`;
      link.download = '';
      link.click();
    }, i * 400),
  );
}
