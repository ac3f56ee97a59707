'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { outputs } from '@maypole/core/output/index';
import { baseName, framesWanted } from '@maypole/core/output/kind';
import { sceneAt } from '@maypole/core/evaluate/picture-at';
import { outputOf, type Item } from '@maypole/core/piece/piece';
import { MAX_OUTPUT } from '@maypole/core/piece/schema';
import { softnessOf, WANTED } from '@maypole/core/scene/softness';
import { loopSeconds } from '@maypole/core/time/loop';
import { X } from 'lucide-react';
import { useState } from 'react';
import { settingsOf } from '@/engine/deliver';
import { download } from '../api';
import { NumberField } from '../fields/number-field';
import { ValuesPanel } from '../fields/values-panel';
import { PictureButton, PlainButton, StrongButton } from '../parts/buttons';
import { Choice } from '../parts/choice';
import { DeclaredIcon } from '../parts/icons';
import { fileSize, inWords } from '../parts/words';
import { cancelDelivery, startDelivery, useDeliveries, type DeliveryJob } from '../state/deliveries';
import { useEditor } from '../state/store';
import { DrawerFrame } from './drawer';

const SIZES = [
  [1080, 1080],
  [1280, 1280],
  [1920, 1080],
  [1080, 1920],
  [3840, 2160],
] as const;

/** The kind chosen when the drawer was last open. */
let lastKind = 'png';

/** Makes files of the loop, while one goes on editing. */
export function DeliverDrawer() {
  const piece = useEditor((s) => s.piece);
  const edit = useEditor((s) => s.edit);
  const jobs = useDeliveries((s) => s.jobs);
  const [kind, choose] = useState(lastKind);
  const { format, loop } = piece;
  const output = outputOf(piece, kind);
  const declared = outputs.get(kind);
  const frames = framesWanted(settingsOf(output), loop.frames);
  const refused = declared.refusal(format);
  const size = (width: number, height: number, gesture: string) =>
    edit('Picture size', (p) => ({ ...p, format: { width, height } }), `format/${gesture}`);
  return (
    <DrawerFrame
      title="Deliver"
      foot={
        <StrongButton
          w="100%"
          onClick={() => startDelivery(piece, output)}
          disabled={piece.ribbons.length === 0 || refused !== null}
        >
          Make {frames.length === loop.frames ? 'file' : `file of ${frames.length} frames`}
        </StrongButton>
      }
    >
      <Text fontSize="13px" color="muted" mb="3" lineHeight="1.5">
        {loop.frames} frames at {loop.fps} fps, {loopSeconds(loop).toFixed(2)} s. Frame {loop.frames} is frame 0 and is
        left out.
      </Text>
      <Choice
        label="Kind of file"
        value={kind}
        onChange={(k) => choose((lastKind = k))}
        direction="cards"
        options={outputs.all.map((k) => ({
          value: k.kind,
          title: k.title,
          help: k.help,
          icon: <DeclaredIcon name={k.icon} size={16} />,
        }))}
      />
      <Text fontSize="12.5px" fontWeight="600" color="muted" mt="4" mb="1">
        Size
      </Text>
      <Flex gap="2" align="center" mb="2">
        <Box flex="1">
          <NumberField
            label="Width"
            value={format.width}
            unit="px"
            min={16}
            max={MAX_OUTPUT}
            soft={[100, 4000]}
            step={2}
            integer
            onChange={(v, g) => size(v, format.height, `w${g}`)}
          />
        </Box>
        <Text color="muted">×</Text>
        <Box flex="1">
          <NumberField
            label="Height"
            value={format.height}
            unit="px"
            min={16}
            max={MAX_OUTPUT}
            soft={[100, 4000]}
            step={2}
            integer
            onChange={(v, g) => size(format.width, v, `h${g}`)}
          />
        </Box>
      </Flex>
      <Flex gap="1.5" flexWrap="wrap" mb="3">
        {SIZES.map(([w, h]) => {
          const is = w === format.width && h === format.height;
          return (
            <chakra.button
              key={`${w}x${h}`}
              type="button"
              aria-pressed={is}
              px="2"
              py="0.5"
              borderRadius="field"
              fontFamily="mono"
              fontSize="12px"
              bg={is ? 'ink' : 'field'}
              color={is ? 'inverse' : 'ink'}
              cursor="pointer"
              onClick={() => size(w, h, `${w}x${h}`)}
            >
              {w} × {h}
            </chakra.button>
          );
        })}
      </Flex>
      <ValuesPanel
        owner={{ type: 'output', item: output.id }}
        params={declared.params}
        values={output.values}
        colour="var(--chakra-colors-sky)"
      />
      <SoftAdvice output={output} subframes={settingsOf(output).subframes} />
      <Text fontFamily="mono" fontSize="12px" color="muted" wordBreak="break-all" mt="3" mb="3" data-testid="contents">
        {declared.contents(baseName(piece.name, format), frames, loop)}
      </Text>
      {refused && (
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
          {refused}
        </Box>
      )}
      {jobs.length > 0 && (
        <Text fontSize="12.5px" fontWeight="600" color="muted" mt="5" mb="1.5">
          Deliveries
        </Text>
      )}
      {jobs.map((job) => (
        <Job key={job.id} job={job} />
      ))}
    </DrawerFrame>
  );
}

function Job({ job }: { job: DeliveryJob }) {
  const { state, progress, delivery } = job;
  const going = state === 'waiting' || state === 'working';
  return (
    <Box
      borderWidth="1px"
      borderColor="line"
      bg="raised"
      borderRadius="card"
      px="3"
      py="2"
      mb="2"
      data-testid="delivery"
    >
      <Flex align="center" gap="2">
        <Text fontSize="13px" fontWeight="600" flex="1" truncate>
          {job.title}, {job.kind}
        </Text>
        {going && (
          <PictureButton
            label={`Cancel ${job.title}, ${job.kind}`}
            color="muted"
            onClick={() => cancelDelivery(job.id)}
          >
            <X size={15} />
          </PictureButton>
        )}
        {state === 'done' && (
          <PlainButton size="xs" onClick={() => download(delivery!.name, delivery!.blob)}>
            Save again
          </PlainButton>
        )}
      </Flex>
      {going && (
        <>
          <Box
            mt="1.5"
            h="6px"
            borderRadius="full"
            bg="field"
            overflow="hidden"
            role="progressbar"
            aria-label={`Delivery of ${job.title}`}
            aria-valuemin={0}
            aria-valuemax={progress?.total ?? 1}
            aria-valuenow={progress?.done ?? 0}
          >
            <Box h="100%" bg="leaf" style={{ width: `${progress ? (100 * progress.done) / progress.total : 0}%` }} />
          </Box>
          <Flex justify="space-between" mt="1" fontSize="12px" color="muted" fontVariantNumeric="tabular-nums">
            <Text>
              {state === 'waiting'
                ? 'Waits for the one before'
                : progress
                  ? `${progress.done} of ${progress.total} frames`
                  : 'Starting…'}
            </Text>
            {progress?.left != null && <Text>{inWords(progress.left)} left</Text>}
          </Flex>
        </>
      )}
      {state === 'done' && (
        <Text role="status" fontSize="12.5px" color="leafText" lineHeight="1.5" wordBreak="break-all">
          {delivery!.name} is made, {fileSize(delivery!.blob.size)}, and in your downloads.
        </Text>
      )}
      {state === 'failed' && (
        <Text role="alert" fontSize="12.5px" color="poppyText" lineHeight="1.5">
          {job.message}
        </Text>
      )}
      {state === 'cancelled' && (
        <Text fontSize="12.5px" color="muted">
          Cancelled
        </Text>
      )}
    </Box>
  );
}

const SOFT_WORDS = {
  soft: 'Soft shadows, depth of field or movement are smooth',
  shade: 'Shade in corners is smooth',
} as const;

/** Says how many sub-frames what is soft in the picture wants, where the output has fewer. */
function SoftAdvice({ output, subframes }: { output: Item; subframes: number }) {
  const softness = useEditor((s) => softnessOf(sceneAt(s.piece, s.frame)));
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
            .setValues('Sub-frames', [{ owner: { type: 'output', item: output.id }, param: 'subframes' }], wanted)
        }
      >
        Use {wanted}
      </PlainButton>
    </Flex>
  );
}
