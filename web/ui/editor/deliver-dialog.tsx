'use client';

import { Box, CloseButton, Dialog, Flex, Portal, Text, chakra } from '@chakra-ui/react';
import { loopSeconds } from '@maypole/core/time/loop';
import { useRef, useState } from 'react';
import { baseName, deliver, frameName, type Delivery, type DeliveryProgress, type FileKind } from '@/engine/deliver';
import { download } from '../api';
import { NumberField } from '../fields/number-field';
import { PlainButton, StrongButton } from '../parts/buttons';
import { pause } from '../state/player';
import { useEditor } from '../state/store';

const KINDS: readonly { kind: FileKind; title: string; help: string }[] = [
  { kind: 'png', title: 'PNG pictures', help: 'Numbered, in a zip' },
  { kind: 'mp4', title: 'MP4 movie', help: 'H.264' },
  { kind: 'webm', title: 'WebM movie', help: 'VP9' },
];
const SIZES = [[1080, 1080], [1280, 1280], [1920, 1080], [1080, 1920], [3840, 2160]] as const;

type Work = { state: 'idle' } | { state: 'working'; progress: DeliveryProgress } | { state: 'done'; delivery: Delivery } | { state: 'failed'; message: string };

/** "about 40 s", "about 3 min". */
function inWords(seconds: number): string {
  return seconds < 90 ? `about ${Math.max(1, Math.round(seconds))} s` : `about ${Math.round(seconds / 60)} min`;
}

/** The kind chosen when the dialog was last open. */
let lastKind: FileKind = 'png';

/** Makes files of the loop. */
export function DeliverDialog() {
  const open = useEditor((s) => s.delivering);
  return open ? <OpenDialog /> : null;
}

function OpenDialog() {
  const piece = useEditor((s) => s.piece);
  const edit = useEditor((s) => s.edit);
  const [kind, choose] = useState(lastKind);
  const setKind = (next: FileKind) => choose((lastKind = next));
  const [work, setWork] = useState<Work>({ state: 'idle' });
  const abort = useRef<AbortController | null>(null);
  const { output, loop } = piece;
  const working = work.state === 'working';
  const size = (width: number, height: number, gesture: string) => edit('Picture size', (p) => ({ ...p, output: { width, height } }), `output/${gesture}`);
  const close = () => {
    if (working) return;
    setWork({ state: 'idle' });
    useEditor.setState({ delivering: false });
  };

  const start = async () => {
    pause();
    const controller = new AbortController();
    abort.current = controller;
    setWork({ state: 'working', progress: { done: 0, total: loop.frames, left: null } });
    try {
      const delivery = await deliver(piece, { kind, ...output }, (progress) => setWork({ state: 'working', progress }), controller.signal);
      download(delivery.name, delivery.blob);
      setWork({ state: 'done', delivery });
    } catch (error) {
      if (controller.signal.aborted) setWork({ state: 'idle' });
      else setWork({ state: 'failed', message: error instanceof Error ? error.message : 'The file could not be made.' });
    }
  };

  const base = baseName(piece, { kind, ...output });
  return (
    <Dialog.Root motionPreset="none" open onOpenChange={(d) => !d.open && close()} closeOnInteractOutside={!working} closeOnEscape={!working} placement="center">
      <Portal>
        <Dialog.Backdrop bg="blackAlpha.500" />
        <Dialog.Positioner>
          <Dialog.Content maxW="520px" bg="panel" borderRadius="14px" borderWidth="1px" borderColor="line" color="ink">
            <Dialog.Header pb="1">
              <Dialog.Title fontFamily="heading" fontSize="19px">Deliver</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body>
              <Text fontSize="13px" color="muted" mb="4">
                {loop.frames} frames at {loop.fps} fps, {loopSeconds(loop).toFixed(2)} s, in final detail. Frame {loop.frames} is frame 0 and is left out.
              </Text>
              <Flex role="radiogroup" aria-label="Kind of file" gap="2" mb="4">
                {KINDS.map((k) => (
                  <chakra.button
                    key={k.kind}
                    type="button"
                    role="radio"
                    aria-checked={k.kind === kind}
                    disabled={working}
                    flex="1"
                    textAlign="left"
                    px="3"
                    py="2"
                    borderRadius="card"
                    borderWidth="1.5px"
                    borderColor={k.kind === kind ? 'ink' : 'line'}
                    bg="raised"
                    cursor="pointer"
                    onClick={() => setKind(k.kind)}
                  >
                    <Text fontWeight="600" fontSize="13.5px">{k.title}</Text>
                    <Text fontSize="12px" color="muted">{k.help}</Text>
                  </chakra.button>
                ))}
              </Flex>
              <Flex gap="2" align="center" mb="2">
                <Text fontSize="12.5px" w="40px">Size</Text>
                <Box w="110px"><NumberField label="Width" value={output.width} unit="px" min={16} max={8192} soft={[100, 4000]} step={2} integer onChange={(v, g) => size(v, output.height, `w${g}`)} /></Box>
                <Text color="muted">×</Text>
                <Box w="110px"><NumberField label="Height" value={output.height} unit="px" min={16} max={8192} soft={[100, 4000]} step={2} integer onChange={(v, g) => size(output.width, v, `h${g}`)} /></Box>
              </Flex>
              <Flex gap="1.5" flexWrap="wrap" mb="4" pl="48px">
                {SIZES.map(([w, h]) => (
                  <chakra.button
                    key={`${w}x${h}`}
                    type="button"
                    disabled={working}
                    aria-pressed={w === output.width && h === output.height}
                    px="2"
                    py="0.5"
                    borderRadius="field"
                    fontFamily="mono"
                    fontSize="12px"
                    bg={w === output.width && h === output.height ? 'ink' : 'field'}
                    color={w === output.width && h === output.height ? 'inverse' : 'ink'}
                    cursor="pointer"
                    onClick={() => size(w, h, `${w}x${h}`)}
                  >
                    {w} × {h}
                  </chakra.button>
                ))}
              </Flex>
              <Text fontFamily="mono" fontSize="12px" color="muted" wordBreak="break-all">
                {kind === 'png' ? `${base}.zip: ${frameName(base, 0, loop.frames)} … ${frameName(base, loop.frames - 1, loop.frames)}` : `${base}.${kind}`}
              </Text>
              {work.state === 'working' && <Progress progress={work.progress} />}
              {work.state === 'failed' && <Box role="alert" mt="4" px="3" py="2.5" borderRadius="card" bg="poppyWash" color="poppyText" fontSize="13px" lineHeight="1.5">{work.message}</Box>}
              {work.state === 'done' && (
                <Box role="status" mt="4" px="3" py="2.5" borderRadius="card" bg="leafWash" color="leafText" fontSize="13px" lineHeight="1.5">
                  {work.delivery.name} is made, {(work.delivery.blob.size / 1e6).toFixed(1)} MB, and in your downloads.
                </Box>
              )}
            </Dialog.Body>
            <Dialog.Footer>
              {work.state === 'done' && <PlainButton onClick={() => download(work.delivery.name, work.delivery.blob)}>Save again</PlainButton>}
              {working ? <PlainButton onClick={() => abort.current?.abort()}>Cancel</PlainButton> : <PlainButton onClick={close}>Close</PlainButton>}
              {!working && <StrongButton onClick={() => void start()} disabled={piece.ribbons.length === 0}>{work.state === 'done' ? 'Make again' : 'Make file'}</StrongButton>}
            </Dialog.Footer>
            {!working && (
              <Dialog.CloseTrigger asChild>
                <CloseButton size="sm" aria-label="Close" color="ink" />
              </Dialog.CloseTrigger>
            )}
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

function Progress({ progress }: { progress: DeliveryProgress }) {
  const share = progress.done / progress.total;
  return (
    <Box mt="4">
      <Box h="8px" borderRadius="full" bg="field" overflow="hidden" role="progressbar" aria-label="Delivery" aria-valuemin={0} aria-valuemax={progress.total} aria-valuenow={progress.done}>
        <Box h="100%" bg="leaf" style={{ width: `${share * 100}%` }} />
      </Box>
      <Flex justify="space-between" mt="1.5" fontSize="12.5px" color="muted" fontVariantNumeric="tabular-nums">
        <Text>{progress.done} of {progress.total} frames</Text>
        <Text>{progress.left === null ? 'Starting…' : `${inWords(progress.left)} left`}</Text>
      </Flex>
    </Box>
  );
}
