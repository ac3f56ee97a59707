'use client';

import { Box, Flex, Text } from '@chakra-ui/react';
import { ownedAt } from '@maypole/core/piece/walk';
import { X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { PictureButton, PlainButton } from '../parts/buttons';
import { firstTurns, forgetStart, type FirstTurn } from '../state/first-turns';
import { showOwner } from '../state/show-value';
import { useEditor } from '../state/store';

/** In a piece made from a starting point: which values to change first. */
export function FirstTurns() {
  const id = useEditor((s) => s.id);
  const piece = useEditor((s) => s.piece);
  const [gone, setGone] = useState(false);
  const [ready, setReady] = useState(false);
  // Browser storage is unknown during server rendering.
  useEffect(() => setReady(true), []);
  const turns = ready && !gone ? firstTurns(id, piece) : [];
  if (turns.length === 0) return null;
  return (
    <Box mb="3" p="3" borderRadius="card" bg="field" as="section" aria-label="Turn these first">
      <Flex align="center" mb="1.5">
        <Text flex="1" fontSize="12.5px" fontWeight="600">
          Turn these first
        </Text>
        <PictureButton
          label="Put this note away"
          onClick={() => {
            forgetStart(id);
            setGone(true);
          }}
        >
          <X size={14} />
        </PictureButton>
      </Flex>
      <Flex wrap="wrap" gap="1.5">
        {turns.map((turn) => (
          <PlainButton key={turn.words} size="2xs" h="26px" px="2" fontSize="12px" onClick={() => show(turn)}>
            {turn.words}
          </PlainButton>
        ))}
      </Flex>
    </Box>
  );
}

/** Opens the step and focuses the row. */
function show({ address: { owner, param } }: FirstTurn): void {
  showOwner(owner);
  const item = owner.type === 'step' ? owner.item : '';
  const title = ownedAt(useEditor.getState().piece, owner)?.params[param]?.title ?? '';
  requestAnimationFrame(() =>
    requestAnimationFrame(() => {
      const card = document.querySelector(`[data-step="${CSS.escape(item)}"]`);
      const rows = [...(card?.querySelectorAll<HTMLElement>('input, button, [role="spinbutton"]') ?? [])];
      const row = rows.find((e) => e.getAttribute('aria-label')?.startsWith(title));
      row?.scrollIntoView({ block: 'center' });
      row?.focus();
    }),
  );
}
