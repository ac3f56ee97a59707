'use client';

import { Box, Flex, Grid, Text, chakra } from '@chakra-ui/react';
import { newPiece, type Piece } from '@maypole/core/piece/piece';
import { starts, type Start } from '@maypole/core/starts/index';
import { loopSeconds } from '@maypole/core/time/loop';
import { Plus } from 'lucide-react';
import { useMemo, useState, type ReactNode } from 'react';
import { emptyPiece } from '../state/last-format';
import { WideDialog } from '../parts/wide-dialog';
import { StartStrip } from './start-strip';

interface Props {
  readonly open: boolean;
  readonly onClose: () => void;
  /** Creates and opens the piece; `start` tells which values to change first. */
  readonly onChoose: (piece: Piece, start: string | null) => Promise<unknown>;
}

const UNTITLED = 'Untitled loop';
const PLAIN = JSON.stringify([newPiece().format, newPiece().loop]);

/** Chooses what a loop begins with: empty, or a starting point that plays already. */
export function NewLoop({ open, onClose, onChoose }: Props) {
  const [busy, setBusy] = useState(false);
  const empty = useMemo(() => (open ? emptyPiece(UNTITLED) : newPiece(UNTITLED)), [open]);
  const { format, loop } = empty;
  const asLast = JSON.stringify([format, loop]) !== PLAIN;
  const choose = (piece: Piece, start: string | null) => {
    setBusy(true);
    void onChoose(piece, start).finally(() => setBusy(false));
  };
  return (
    <WideDialog
      title="New loop"
      note="Begin with nothing, or with a loop that closes already. Everything in it can be changed."
      open={open}
      onClose={onClose}
    >
      <Grid templateColumns="repeat(auto-fill, minmax(165px, 1fr))" gap="4">
        <Tile
          title="Empty"
          help={`No ribbon yet: begin with a form. ${format.width} × ${format.height} at ${loop.fps} fps${asLast ? ', as you had it last' : ''}.`}
          busy={busy}
          onChoose={() => choose(empty, null)}
        >
          <Flex aspectRatio="1" align="center" justify="center" bg="field" color="muted">
            <Plus size={30} />
          </Flex>
        </Tile>
        {starts.map((start) => (
          <StartTile key={start.id} start={start} busy={busy} onChoose={choose} />
        ))}
      </Grid>
    </WideDialog>
  );
}

function StartTile({
  start,
  busy,
  onChoose,
}: {
  start: Start;
  busy: boolean;
  onChoose: (piece: Piece, start: string) => void;
}) {
  const seconds = useMemo(() => loopSeconds(start.make().loop), [start]);
  return (
    <Tile title={start.title} help={start.help} busy={busy} onChoose={() => onChoose(start.make(), start.id)}>
      <StartStrip id={start.id} seconds={seconds} />
    </Tile>
  );
}

interface TileProps {
  readonly title: string;
  readonly help: string;
  readonly busy: boolean;
  readonly onChoose: () => void;
  readonly children: ReactNode;
}

function Tile({ title, help, busy, onChoose, children }: TileProps) {
  return (
    <chakra.button
      type="button"
      disabled={busy}
      aria-label={`${title}. ${help}`}
      onClick={onChoose}
      display="flex"
      flexDirection="column"
      alignItems="stretch"
      textAlign="left"
      borderWidth="1px"
      borderColor="line"
      borderRadius="12px"
      overflow="hidden"
      bg="raised"
      cursor="pointer"
      _hover={{ borderColor: 'lineStrong', boxShadow: 'card' }}
    >
      {children}
      <Box px="3" py="2.5">
        <Text fontWeight="600" fontSize="13.5px">
          {title}
        </Text>
        <Text color="muted" fontSize="12px" lineHeight="1.45" mt="0.5">
          {help}
        </Text>
      </Box>
    </chakra.button>
  );
}
