'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useEffect } from 'react';
import { DeliverDrawer } from '../deliver/deliver-drawer';
import { Compare } from '../compare/compare';
import { closeCompare, openCompare, useCompare } from '../compare/compare-store';
import { Sheet } from '../explore/sheet';
import { closeSheet, useSheet } from '../explore/sheet-store';
import { useWarmSheet } from '../explore/warm-sheet';
import { HistoryDrawer } from '../drawers/history-drawer';
import { SceneDrawer } from '../drawers/scene-drawer';
import { SeamDrawer } from '../drawers/seam-drawer';
import { startAround } from '../state/around';
import { startAutosave } from '../state/saving';
import { startKeepingUndo } from '../state/kept-undo';
import { startSession } from '../state/session';
import { noteFormats } from '../state/last-format';
import { useFold, useNarrow, useTight } from '../state/narrow';
import { pause } from '../state/player';
import { useEditor } from '../state/store';
import { useClipboard } from '../state/clipboard';
import { useShortcuts } from '../state/shortcuts';
import { PANES, restoreLayout, useLayout } from '../state/layout';
import { AWAY, PaneEdge } from '../parts/pane-edge';
import { CommandField } from '../find/command-field';
import { ACTS } from '../find/acts';
import { FocusHint } from '../find/focus-hint';
import { Explainer } from '../find/explainer';
import { ShortcutsPage } from '../find/shortcuts-page';
import { useSurroundings } from '../find/surroundings';
import { Spoken } from './spoken';
import { WalkCompanion } from '../guide/walk-companion';
import { ConflictDialog } from './conflict-dialog';
import { RibbonBands } from '../thread/ribbon-bands';
import { Round } from '../round/round';
import { Thread } from '../thread/thread';
import { NarrowSide, NarrowTabs } from './narrow-side';
import { TopBar } from './top-bar';
import { Viewport } from '../picture/viewport';

/** The steps of the selected ribbon, resizable. */
function Panel() {
  const width = useLayout((s) => s.panel);
  return (
    <Flex
      position="relative"
      flexShrink={1}
      minW={width === 0 ? undefined : `${PANES.panel.least}px`}
      minH="0"
      borderRightWidth="1px"
      borderColor="line"
      style={{ width: width || AWAY }}
    >
      {width > 0 && <Thread />}
      <PaneEdge pane="panel" side="right" label="Width of the steps" />
    </Flex>
  );
}

const DRAWERS = {
  seam: <SeamDrawer />,
  scene: <SceneDrawer />,
  deliver: <DeliverDrawer />,
  history: <HistoryDrawer />,
} as const;

/** The screen of an open piece. */
export function Editor() {
  const name = useEditor((s) => s.piece.name);
  const drawer = useEditor((s) => s.drawer);
  const sheet = useSheet((s) => s.open);
  const compare = useCompare((s) => s.open);
  const covered = sheet || compare;
  const around = useSurroundings();
  useShortcuts((action) => ACTS[action](around));
  useClipboard();
  useEffect(restoreLayout, []);
  useEffect(noteFormats, []);
  useWarmSheet();
  useEffect(() => {
    const endSession = startSession();
    const endAround = startAround();
    const { readOnly } = useEditor.getState();
    const endSaving = readOnly ? () => undefined : startAutosave();
    const endKeeping = readOnly ? () => undefined : startKeepingUndo();
    return () => {
      pause();
      closeSheet();
      closeCompare();
      endKeeping();
      endSaving();
      endAround();
      endSession();
    };
  }, []);
  useEffect(() => {
    const other = new URLSearchParams(window.location.search).get('compare');
    if (other) void openCompare(`piece:${other}`);
  }, []);
  useEffect(() => {
    document.title = `${name} · Maypole`;
  }, [name]);

  const narrow = useNarrow();
  const tight = useTight();
  const fold = useFold((s) => s.fold);
  const opened = drawer && DRAWERS[drawer];
  // Lanes need width, whatever the screen; else what is edited stands beside the picture if there is room.
  const stacked = narrow && (tight || (!drawer && fold === 'time'));

  return (
    <Flex direction="column" position="relative" h="100dvh" overflow="hidden" bg="panel">
      <TopBar />
      <Flex flex="1" minH="0" inert={covered} direction={stacked ? 'column' : 'row'}>
        {!narrow && <RibbonBands />}
        {!narrow && <Panel />}
        <Box flex="1" minW={narrow ? '0' : '300px'} minH="0" position="relative" overflow="hidden">
          <Viewport />
        </Box>
        {narrow ? <NarrowSide drawer={opened} below={stacked} /> : opened}
      </Flex>
      <Box inert={covered} flexShrink={0}>
        {narrow ? <NarrowTabs /> : <Round />}
      </Box>
      {sheet && <Sheet />}
      {compare && <Compare />}
      <ConflictDialog />
      <CommandField />
      <ShortcutsPage />
      <Explainer />
      <FocusHint />
      <Spoken />
      <WalkCompanion />
    </Flex>
  );
}
