'use client';

import { Box, Flex, Link, Text, chakra } from '@chakra-ui/react';
import { basesOf } from '@maypole/core/output/bases';
import { deliveryFault, outputFault } from '@maypole/core/piece/delivery-fault';
import { outputs } from '@maypole/core/output/index';
import { frameNameOf, patternFault } from '@maypole/core/output/names';
import { OUTPUT_PRESETS } from '@maypole/core/output/presets';
import { renderParams } from '@maypole/core/output/rendering';
import { deliveredSize, framesWanted, renderSettings } from '@maypole/core/output/render-settings';
import type { Piece } from '@maypole/core/piece/piece';
import { softnessOf, WANTED } from '@maypole/core/scene/softness';
import { loopSeconds } from '@maypole/core/time/loop';
import { useRef, useState, type Ref } from 'react';
import type { RenderSummary } from '@/contract/renders';
import { DrawerFrame } from '../drawers/drawer';
import { ValuesPanel } from '../fields/values-panel';
import { ItemCard } from '../items/item-card';
import { PlainButton, StrongButton } from '../parts/buttons';
import { tellTrouble } from '../parts/toasts';
import { saveNow } from '../state/saving';
import { sceneNow } from '../state/derived';
import { verdictOf } from '../state/derived';
import { useEditor } from '../state/store';
import { AddOutput } from './add-output';
import { duplicateOutput, removeOutput, repairOutput, switchOutput, takePreset } from './edit-outputs';
import { EstimateWords, worksOn } from './estimate';
import { lend, useLending } from './lending';
import { RenderCard } from './render-card';
import { clearRender, startRender } from './render-api';
import { awaitRender, goesOn } from './awaited';
import { lookAtQueue, useQueue } from './renders';
import { SizeFields } from './size-fields';
import { TryFrame } from './try-frame';
import { WaitsForRoom } from './waits-for-room';

/** Saves unsaved edits; returns the revision. */
async function savedRevision(): Promise<number> {
  for (let i = 0; i < 5 && useEditor.getState().save !== 'saved'; i++) await saveNow();
  const { save, saveTrouble, revision } = useEditor.getState();
  if (save !== 'saved')
    throw new Error(
      saveTrouble ?? 'The piece is not saved, so that nothing can be rendered of it; try again in a moment.',
    );
  return revision;
}

/** Beside the button: why it does not work, or that it renders less than the loop. */
function RenderNotes({ piece, frames, fault }: { piece: Piece; frames: readonly number[]; fault: string | null }) {
  const part = frames.length < piece.loop.frames;
  // With outputs the fault stands where it is mended.
  const why = fault && piece.outputs.length === 0 ? fault : null;
  if (!part && !why) return null;
  const all = () => {
    const owner = { type: 'render', item: piece.render.id } as const;
    useEditor.getState().setValue('Frames', { owner, param: 'range' }, 'all');
  };
  return (
    <Flex id="render-notes" role="status" fontSize="12.5px" color="muted" lineHeight="1.5" mb="2" gap="2">
      <Text flex="1">
        {why}
        {why && part && ' '}
        {part && `Of ${piece.loop.frames} frames, ${partWords(frames)}.`}
      </Text>
      {part && (
        <chakra.button type="button" fontWeight="600" color="ink" cursor="pointer" onClick={all}>
          All frames
        </chakra.button>
      )}
    </Flex>
  );
}

function partWords(frames: readonly number[]): string {
  if (frames.length === 0) return 'none';
  const [first, last] = [frames[0], frames[frames.length - 1]];
  return frames.length === 1 ? `frame ${first} alone is rendered` : `${first} to ${last} are rendered`;
}

/** The outputs of a piece and its renders, beside the editor. */
export function DeliverDrawer() {
  const id = useEditor((s) => s.id);
  const piece = useEditor((s) => s.piece);
  const gaps = useEditor((s) => verdictOf(s.measure).gaps || verdictOf(s.measure).open.length);
  const queue = useQueue(id);
  const list = useRef<HTMLDivElement>(null);
  const [starting, setStarting] = useState(false);
  const [estimated, setEstimated] = useState<{ readonly id: string; readonly piece: Piece }>();
  const [opened, setOpened] = useState<Record<string, boolean>>({});
  const { loop } = piece;
  const settings = renderSettings(piece.render.values);
  const frames = framesWanted(settings, loop.frames);
  const fault = deliveryFault(piece);
  const renders = queue?.renders ?? [];
  const estimate = renders.find((r) => r.id === estimated?.id);
  const shown = renders.filter((r) => !r.estimate);
  const open = (render: string, value: boolean) => setOpened((o) => ({ ...o, [render]: value }));
  const start = async (asEstimate: boolean) => {
    setStarting(true);
    try {
      if (asEstimate && estimated) await clearRender(estimated.id).catch(() => undefined);
      const made = await startRender(id, await savedRevision(), asEstimate);
      if (asEstimate) setEstimated({ id: made, piece });
      else open(made, true);
      awaitRender(made);
      // This browser draws what it has asked for.
      if (settings.light === 'quick') lend(false);
      await lookAtQueue();
      if (!asEstimate) list.current?.scrollIntoView({ block: 'start' });
    } catch (error) {
      tellTrouble(error instanceof Error ? error.message : 'It could not be started.');
    } finally {
      setStarting(false);
    }
  };
  return (
    <DrawerFrame
      title="Deliver"
      foot={
        <>
          {estimate && (
            <EstimateWords
              render={estimate}
              frames={frames.length}
              workers={queue!.workers}
              stale={estimated?.piece !== piece}
            />
          )}
          <RenderNotes piece={piece} frames={frames} fault={fault} />
          <StartButtons frames={frames.length} fault={fault} starting={starting} onStart={(est) => void start(est)} />
        </>
      }
    >
      <Text fontSize="13px" color="muted" mb="3" lineHeight="1.5">
        {loop.frames} {loop.frames === 1 ? 'frame' : 'frames'} at {loop.fps} fps, {loopSeconds(loop).toFixed(2)} s.{' '}
        {gaps > 0
          ? `The seam has a gap: frame ${loop.frames} would not be frame 0, and the loop jumps where it begins again.`
          : `Frame ${loop.frames} is frame 0 and is left out.`}
      </Text>
      <Flex align="center" mb="2">
        <Text fontSize="12.5px" fontWeight="600" color="muted" flex="1">
          Outputs
        </Text>
        <AddOutput />
      </Flex>
      {piece.outputs.length === 0 && <Purposes />}
      {piece.outputs.map((item) => (
        <Box key={item.id}>
          <ItemCard
            owner={{ type: 'output', item: item.id }}
            item={item}
            kind={outputs.get(item.kind)}
            colour="var(--chakra-colors-sky)"
            onSwitch={(value) => switchOutput(item.id, value)}
            onCopy={() => duplicateOutput(item.id)}
            onRemove={() => removeOutput(item.id)}
          />
        </Box>
      ))}
      {piece.outputs.length > 0 && <Purposes short />}
      <Text fontSize="12.5px" fontWeight="600" color="muted" mt="4" mb="1">
        Picture
      </Text>
      <SizeFields />
      <ValuesPanel
        owner={{ type: 'render', item: piece.render.id }}
        params={renderParams}
        values={piece.render.values}
        colour="var(--chakra-colors-sky)"
      />
      {settings.light === 'quick' && <SoftAdvice subframes={settings.subframes} />}
      <TryFrame />
      <NamesPreview piece={piece} frames={frames} />
      {fault && piece.outputs.length > 0 && <Fault words={fault} />}
      <Renders ref={list} queue={queue} shown={shown} opened={opened} onOpen={open} />
    </DrawerFrame>
  );
}

function StartButtons({
  frames,
  fault,
  starting,
  onStart,
}: {
  frames: number;
  fault: string | null;
  starting: boolean;
  onStart: (asEstimate: boolean) => void;
}) {
  return (
    <Flex gap="2">
      <PlainButton
        data-does="estimate"
        disabled={fault !== null || starting}
        title="Makes a few frames and estimates the whole"
        onClick={() => onStart(true)}
      >
        Estimate
      </PlainButton>
      <StrongButton
        data-does="render"
        aria-describedby="render-notes"
        title={fault ?? undefined}
        flex="1"
        disabled={fault !== null || starting}
        onClick={() => onStart(false)}
      >
        Render {frames === 1 ? '1 frame' : `${frames} frames`}
      </StrongButton>
    </Flex>
  );
}

/** Why nothing can be rendered as it is set. */
function Fault({ words }: { words: string }) {
  return (
    <Box
      role="alert"
      mb="3"
      px="3"
      py="2.5"
      borderRadius="card"
      bg="poppyWash"
      color="poppyText"
      fontSize="13px"
      lineHeight="1.5"
    >
      {words}
    </Box>
  );
}

/** The renders of this piece, the newest first. */
function Renders({
  ref,
  queue,
  shown,
  opened,
  onOpen,
}: {
  ref: Ref<HTMLDivElement>;
  queue: ReturnType<typeof useQueue>;
  shown: readonly RenderSummary[];
  opened: Readonly<Record<string, boolean>>;
  onOpen: (render: string, open: boolean) => void;
}) {
  const on = shown.filter(goesOn);
  return (
    <>
      <Flex ref={ref} align="center" mt="5" mb="1.5">
        <Text fontSize="12.5px" fontWeight="600" color="muted" flex="1">
          Renders
        </Text>
        <Link href="/renders" fontSize="12.5px" color="ink">
          All renders and machines
        </Link>
      </Flex>
      {queue && shown.length === 0 && (
        <Text fontSize="12.5px" color="muted" lineHeight="1.5">
          None of this piece yet. They go on while you work, and after this page is closed.
        </Text>
      )}
      <WaitsForRoom queue={queue} />
      <WaitsHere
        waits={on.some((r) => r.order.light === 'quick' && !r.paused && r.leased === 0 && r.done < r.frames)}
      />
      {shown.map((render) => {
        const place = on.indexOf(render);
        return (
          <RenderCard
            key={render.id}
            render={render}
            all={shown}
            worked={queue!.workers.some((w) => worksOn(w, render.order.light))}
            ahead={place > 0 ? on[place - 1].id : undefined}
            open={opened[render.id] ?? false}
            onOpen={(value) => onOpen(render.id, value)}
            onRepair={repairOutput}
          />
        );
      })}
    </>
  );
}

/** A render in quick light waits for a browser if the page that asked for it was closed. */
function WaitsHere({ waits }: { waits: boolean }) {
  const trouble = useLending((s) => s.trouble);
  if (!waits && !trouble) return null;
  return (
    <Flex align="center" gap="2" mb="2" fontSize="12.5px" color="muted" lineHeight="1.4">
      <Text flex="1" color={trouble ? 'poppyText' : undefined}>
        {trouble ?? 'Quick light is drawn by a browser.'}
      </Text>
      <PlainButton size="xs" onClick={() => lend(false)}>
        Draw here
      </PlainButton>
    </Flex>
  );
}

/** What files may be for: outputs and settings at one click. */
function Purposes({ short = false }: { short?: boolean }) {
  return (
    <Box mb="2">
      <Text fontSize="12.5px" color="muted" lineHeight="1.5" mb="1.5">
        {short ? 'Or set for' : 'Set for a purpose, or add outputs by themselves.'}
      </Text>
      <Flex gap="1.5" flexWrap="wrap">
        {OUTPUT_PRESETS.map((preset) => (
          <chakra.button
            key={preset.id}
            type="button"
            title={preset.help}
            px="2.5"
            h="26px"
            borderRadius="full"
            bg="field"
            color="ink"
            fontSize="12.5px"
            cursor="pointer"
            _hover={{ bg: 'line' }}
            onClick={() => takePreset(preset)}
          >
            {preset.title}
          </chakra.button>
        ))}
      </Flex>
    </Box>
  );
}

/** Most names that are shown. */
const NAMES = 8;

function NamesPreview({ piece, frames }: { piece: Piece; frames: readonly number[] }) {
  const revision = useEditor((s) => s.revision);
  const { name: pattern } = renderSettings(piece.render.values);
  const items = piece.outputs.filter((o) => o.on);
  if (items.length === 0 || patternFault(pattern) !== null) return null;
  const { loop, name } = piece;
  const named = {
    piece: name,
    ...deliveredSize(piece),
    fps: loop.fps,
    frames: loop.frames,
    revision,
    date: new Date(),
  };
  const bases = basesOf(items, pattern, named);
  const lines = items.slice(0, NAMES).map((item, i) => {
    const kind = outputs.get(item.kind);
    if (outputFault(piece, item)) return null;
    const one = (frame: number) =>
      `${frameNameOf(pattern, bases[i], { ...named, output: item.kind }, frame)}.${kind.ending}`;
    if (!kind.many) return `${bases[i]}.${kind.ending}`;
    return frames.length > 1
      ? `${one(frames[0])} … ${one(frames[frames.length - 1])
          .split('/')
          .at(-1)}`
      : one(frames[0]);
  });
  return (
    <Box mt="2" mb="3" data-testid="contents">
      {lines.map((line, i) => (
        <Text key={i} fontFamily="mono" fontSize="12px" color="muted" wordBreak="break-all" lineHeight="1.5">
          {line}
        </Text>
      ))}
    </Box>
  );
}

const SOFT_WORDS = {
  soft: 'Soft shadows, depth of field or movement are smooth',
  shade: 'Shade in corners is smooth',
} as const;

/** Says how many sub-frames what is soft in the picture wants, where there are fewer. */
function SoftAdvice({ subframes }: { subframes: number }) {
  const softness = useEditor((s) => softnessOf(sceneNow(s)));
  const render = useEditor((s) => s.piece.render.id);
  const wanted = WANTED[softness];
  if (softness === 'edges' || subframes >= wanted) return null;
  return (
    <Flex align="center" gap="2" mt="2" fontSize="12px" color="marigoldText" lineHeight="1.4" data-testid="soft-advice">
      <Text flex="1">
        {SOFT_WORDS[softness]} from {wanted} sub-frames on.
      </Text>
      <PlainButton
        size="xs"
        onClick={() =>
          useEditor
            .getState()
            .setValues('Sub-frames', [{ owner: { type: 'render', item: render }, param: 'subframes' }], wanted)
        }
      >
        Use {wanted}
      </PlainButton>
    </Flex>
  );
}
