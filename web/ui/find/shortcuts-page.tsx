'use client';

import { Box, Flex, Grid, Heading, Text, chakra } from '@chakra-ui/react';
import { ACTION_GROUPS, actionIds, actionOf, type ActionId } from '@maypole/core/find/actions';
import { chordOf } from '@maypole/core/find/chord';
import { RotateCcw } from 'lucide-react';
import { useEffect, useState } from 'react';
import { PictureButton, PlainButton } from '../parts/buttons';
import { WideDialog } from '../parts/wide-dialog';
import { changeKeys, keysOf, resetAllKeys, resetKeys, useKeys } from '../state/keys';
import { useShortcutsPage } from './open-stores';

/** All shortcuts on one page, each of them changeable. */
export function ShortcutsPage() {
  const open = useShortcutsPage((s) => s.open);
  const own = useKeys((s) => s.own);
  const [asked, setAsked] = useState<ActionId | null>(null);
  const [said, setSaid] = useState('');
  const close = () => {
    setAsked(null);
    setSaid('');
    useShortcutsPage.setState({ open: false });
  };
  return (
    <WideDialog
      title="Shortcuts"
      note="Press a key’s button, then the keys you want. They are kept in this browser."
      open={open}
      onClose={close}
    >
      <Flex align="center" minH="32px" mb="2" gap="3">
        <Text role="status" fontSize="13px" flex="1" color={said ? 'ink' : 'muted'}>
          {said || (asked ? `Press the keys for “${actionOf(asked).title}”. Backspace takes its keys away.` : '')}
        </Text>
        {Object.keys(own).length > 0 && (
          <PlainButton
            size="xs"
            onClick={() => {
              resetAllKeys();
              setSaid('All keys are reset.');
            }}
          >
            Reset all keys
          </PlainButton>
        )}
      </Flex>
      <Grid templateColumns="repeat(auto-fill, minmax(400px, 1fr))" gap="6" alignItems="start">
        {(Object.keys(ACTION_GROUPS) as (keyof typeof ACTION_GROUPS)[]).map((group) => (
          <Box key={group} as="section" aria-label={ACTION_GROUPS[group]}>
            <Heading as="h3" fontSize="13px" fontWeight="600" color="muted" mb="1">
              {ACTION_GROUPS[group]}
            </Heading>
            {actionIds
              .filter((id) => actionOf(id).group === group)
              .map((id) => (
                <Row
                  key={id}
                  id={id}
                  keys={keysOf(id, own)}
                  changed={own[id] !== undefined}
                  asked={asked === id}
                  onAsk={() => {
                    setSaid('');
                    setAsked(asked === id ? null : id);
                  }}
                  onSay={(words) => {
                    setSaid(words);
                    setAsked(null);
                  }}
                />
              ))}
          </Box>
        ))}
      </Grid>
    </WideDialog>
  );
}

interface RowProps {
  readonly id: ActionId;
  readonly keys: string | null;
  readonly changed: boolean;
  readonly asked: boolean;
  readonly onAsk: () => void;
  readonly onSay: (words: string) => void;
}

function Row({ id, keys, changed, asked, onAsk, onSay }: RowProps) {
  const { title, help } = actionOf(id);
  useEffect(() => {
    if (!asked) return;
    const onKey = (e: KeyboardEvent) => {
      if (e.key === 'Tab') return;
      e.preventDefault();
      e.stopPropagation();
      if (e.key === 'Escape') return onSay('');
      if (e.key === 'Backspace') {
        changeKeys(id, null);
        return onSay(`${title} has no keys now.`);
      }
      const chord = chordOf(e);
      if (chord === null) return;
      try {
        const loser = changeKeys(id, chord);
        onSay(`${chord}: ${title}.${loser ? ` “${actionOf(loser).title}” had it, and has no keys now.` : ''}`);
      } catch (error) {
        onSay((error as Error).message);
      }
    };
    // In the capture phase, before the dialog, which Escape would close.
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, [asked, id, title, onSay]);
  return (
    <Flex align="center" gap="2" py="1" borderTopWidth="1px" borderColor="line" minH="38px">
      <Box flex="1" minW="0" title={help}>
        <Text fontSize="13px" truncate>
          {title}
        </Text>
      </Box>
      {changed && (
        <PictureButton
          label={`${title}: reset its keys`}
          onClick={() => {
            resetKeys(id);
            onSay(`${title} has its first keys again.`);
          }}
        >
          <RotateCcw size={14} />
        </PictureButton>
      )}
      <chakra.button
        type="button"
        aria-label={`Keys of ${title}: ${keys ?? 'none'}`}
        aria-pressed={asked}
        onClick={onAsk}
        minW="104px"
        h="26px"
        px="2"
        fontFamily="mono"
        fontSize="11.5px"
        borderRadius="field"
        borderWidth="1px"
        borderColor={asked ? 'ink' : 'line'}
        bg={asked ? 'field' : 'raised'}
        color={keys || asked ? 'ink' : 'muted'}
        cursor="pointer"
      >
        {asked ? 'Press keys' : (keys ?? 'none')}
      </chakra.button>
    </Flex>
  );
}
