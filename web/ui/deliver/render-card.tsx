'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { outputs } from '@maypole/core/output/index';
import { ArrowUp, ChevronDown, ChevronRight, Download, Pause, Play, RotateCcw, Trash2, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { FileSummary, MadeAgain, RenderChange, RenderDetail, RenderSummary } from '@/contract/renders';
import { PictureButton } from '../parts/buttons';
import { DeclaredIcon } from '../parts/icons';
import { tellTrouble } from '../parts/toasts';
import { fileSize, inWords } from '../parts/words';
import { FileReportView } from './file-report';
import { FrameStrip } from './frame-strip';
import { FrameViewer } from './frame-viewer';
import { changeRender, clearRender, filePath, renderOf } from './render-api';
import { goesOn } from './awaited';
import { lookAtQueue, shareOf } from './renders';
import { RenderLog } from './render-log';

interface Props {
  readonly render: RenderSummary;
  /** All known renders, to compare with. */
  readonly all: readonly RenderSummary[];
  /** Whether any worker could make it. */
  readonly worked: boolean;
  /** The render before it in the queue, if it may overtake that. */
  readonly ahead?: string;
  readonly open: boolean;
  readonly onOpen: (open: boolean) => void;
  readonly onRepair?: (kind: string, title: string, values: Record<string, string | number | boolean>) => void;
}

/** A render: progress, frames, results and actions. */
export function RenderCard({ render, all, worked, ahead, open, onOpen, onRepair }: Props) {
  const [detail, setDetail] = useState<RenderDetail>();
  const [shown, setShown] = useState<number>();
  const { id, state, done, failed } = render;
  useEffect(() => {
    if (!open) return;
    let wanted = true;
    renderOf(id).then(
      (d) => wanted && setDetail(d),
      () => undefined,
    );
    return () => {
      wanted = false;
    };
  }, [id, open, state, done, failed, render.leased]);
  const attempt = (work: Promise<unknown>) =>
    void work.then(
      () => lookAtQueue(),
      (error: Error) => tellTrouble(error.message),
    );
  const change = (c: RenderChange) => attempt(changeRender(id, c));
  const on = goesOn(render);
  return (
    <Box borderWidth="1px" borderColor="line" bg="raised" borderRadius="card" px="3" py="2" mb="2" data-testid="render">
      <Flex align="center" gap="1">
        <PictureButton
          label={`${open ? 'Fold' : 'Open'} ${render.name}`}
          aria-expanded={open}
          ml="-1.5"
          color="muted"
          onClick={() => onOpen(!open)}
        >
          {open ? <ChevronDown size={15} /> : <ChevronRight size={15} />}
        </PictureButton>
        <Text fontSize="13px" fontWeight="600" flex="1" truncate>
          {render.name}
          <chakra.span color="muted" fontWeight="400">
            {' '}
            revision {render.revision}
          </chakra.span>
        </Text>
        <RenderActions render={render} ahead={ahead} change={change} onClear={() => attempt(clearRender(id))} />
      </Flex>
      <Text fontSize="12px" color="muted">
        {howMade(render)}
      </Text>
      {on && <Progress render={render} />}
      <Flex justify="space-between" gap="3" mt="1" fontSize="12px" color="muted" fontVariantNumeric="tabular-nums">
        <Text role="status" color={state === 'failed' ? 'poppyText' : undefined}>
          {standing(render, worked)}
        </Text>
        {render.left !== null && <Text whiteSpace="nowrap">{inWords(render.left)} left</Text>}
      </Flex>
      {render.again.other.length > 0 && (
        <Text role="alert" fontSize="12px" color="poppyText" lineHeight="1.5" mt="1">
          {unlike(render.again.other)}
        </Text>
      )}
      {open && detail && <FrameStrip render={detail} onShow={setShown} onWant={(index) => change({ first: index })} />}
      {render.files
        .filter((f) => f.state !== 'waiting')
        .map((f) => (
          <OutputRow key={f.id} render={id} file={f} onRepair={onRepair} />
        ))}
      {open && detail && <RenderLog render={detail} again={render.again} />}
      {shown !== undefined && detail && (
        <FrameViewer
          render={detail}
          index={shown}
          others={all.filter(
            (r) =>
              r.id !== id && r.pieceId === render.pieceId && r.frames === render.frames && r.done > 0 && !r.estimate,
          )}
          onIndex={setShown}
          onClose={() => setShown(undefined)}
        />
      )}
    </Box>
  );
}

function howMade({ order, frames, loopFrames }: RenderSummary): string {
  const light = order.light === 'true' ? `true light, ${order.samples} samples` : 'quick light';
  const which = frames === loopFrames ? `${frames} frames` : `${frames} of ${loopFrames} frames`;
  return `${which}, ${order.width} × ${order.height}, ${light}`;
}

/** Explains that machines disagree about a frame, and what to do. */
function unlike(other: MadeAgain['other']): string {
  const [{ frame, first, again }, ...more] = other;
  const others = more.length > 0 ? `, and so did ${more.length} more` : '';
  return (
    `Frame ${frame}, which ${first} had made, came out different when ${again} made it again${others}. One of the two ` +
    'does not work as it should: withdraw the key of the one you trust less, clear this render and begin it anew.'
  );
}

/** State of a render, in words. */
function standing(r: RenderSummary, worked: boolean): string {
  const { state, paused, done, frames, takenOver, failed } = r;
  if (state === 'done')
    return `Done${r.spent > 0 ? `, ${inWords(r.spent).replace('about ', '')} of work` : ''}, ${fileSize(r.bytes)} with its frames`;
  if (state === 'cancelled') return `Cancelled at ${done} of ${frames} frames; they are kept`;
  if (state === 'failed') return r.message ?? 'It could not be rendered.';
  if (paused) return `Paused at ${done} of ${frames} frames`;
  if (state === 'files') return 'Files are being made';
  const over = takenOver > 0 ? `, ${takenOver} there already` : '';
  const lost = failed > 0 ? `, ${failed} failed` : '';
  if (!worked && r.leased === 0)
    return r.order.light === 'quick' ? 'Waits for a browser that draws' : 'Waits for a machine that works';
  return `${done} of ${frames} frames${over}${lost}`;
}

function OutputRow({ render, file, onRepair }: { render: string; file: FileSummary; onRepair?: Props['onRepair'] }) {
  const [open, setOpen] = useState(false);
  const { kind, state, report } = file;
  const declared = outputs.get(kind);
  return (
    <Box mt="2" data-testid="output-row">
      <Flex align="center" gap="2">
        <Box color="muted">
          <DeclaredIcon name={declared.icon} size={14} />
        </Box>
        <Box flex="1" minW="0">
          <Text fontSize="12.5px" truncate title={file.name ?? declared.title}>
            {declared.title}
            {file.name && (
              <chakra.span color="muted" fontSize="12px">
                {' '}
                {file.name.split('/').at(-1)}
                {file.count > 1 && ` and ${file.count - 1} more`}
              </chakra.span>
            )}
          </Text>
        </Box>
        {file.bytes !== null && (
          <Text fontSize="12px" color="muted" whiteSpace="nowrap">
            {fileSize(file.bytes)}
          </Text>
        )}
        {state === 'leased' && (
          <Text fontSize="12px" color="muted">
            {Math.round(100 * file.share)} %
          </Text>
        )}
        {report && (
          <chakra.button
            type="button"
            aria-expanded={open}
            aria-label={`Report on ${declared.title}`}
            px="2"
            h="22px"
            borderRadius="full"
            fontSize="11.5px"
            fontWeight="600"
            cursor="pointer"
            whiteSpace="nowrap"
            bg={report.sound ? 'leafWash' : 'poppyWash'}
            color={report.sound ? 'leafText' : 'poppyText'}
            onClick={() => setOpen(!open)}
          >
            {!report.sound ? 'Look here' : report.round && report.round.seams.length > 0 ? 'Seam closed' : 'Checked'}
          </chakra.button>
        )}
        {state === 'done' && (
          <chakra.a
            href={filePath(render, file.id)}
            download
            aria-label={`Save ${declared.title}`}
            title={`Save ${declared.title}`}
            color="ink"
            p="1"
            borderRadius="field"
            _hover={{ bg: 'field' }}
          >
            <Download size={15} />
          </chakra.a>
        )}
      </Flex>
      {state === 'failed' && (
        <Text role="alert" fontSize="12px" color="poppyText" lineHeight="1.5">
          {declared.title}: {file.message}
        </Text>
      )}
      {open && report && (
        <FileReportView
          kind={kind}
          report={report}
          onRepair={onRepair && ((title, values) => onRepair(kind, title, values))}
        />
      )}
    </Box>
  );
}

/** What can be done with a render as it stands. */
function RenderActions({
  render,
  ahead,
  change,
  onClear,
}: Pick<Props, 'render' | 'ahead'> & { readonly change: (c: RenderChange) => void; readonly onClear: () => void }) {
  const { state, paused } = render;
  const on = goesOn(render);
  return (
    <>
      {on && ahead && (
        <PictureButton label={`${render.name} earlier`} color="muted" onClick={() => change({ before: ahead })}>
          <ArrowUp size={14} />
        </PictureButton>
      )}
      {on && (
        <PictureButton
          label={paused ? `Go on with ${render.name}` : `Pause ${render.name}`}
          color="muted"
          onClick={() => change({ paused: !paused })}
        >
          {paused ? <Play size={14} /> : <Pause size={14} />}
        </PictureButton>
      )}
      {on && (
        <PictureButton label={`Cancel ${render.name}`} color="muted" onClick={() => change({ cancelled: true })}>
          <X size={15} />
        </PictureButton>
      )}
      {(state === 'failed' || state === 'cancelled') && (
        <PictureButton label={`Try ${render.name} again`} color="muted" onClick={() => change({ retry: true })}>
          <RotateCcw size={14} />
        </PictureButton>
      )}
      {!on && (
        <PictureButton label={`Clear ${render.name}`} color="muted" onClick={onClear}>
          <Trash2 size={14} />
        </PictureButton>
      )}
    </>
  );
}

function Progress({ render }: Pick<Props, 'render'>) {
  return (
    <Box
      mt="1.5"
      h="6px"
      borderRadius="full"
      bg="field"
      overflow="hidden"
      role="progressbar"
      aria-label={`Render of ${render.name}`}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(100 * shareOf(render))}
    >
      <Box h="100%" bg={render.paused ? 'marigold' : 'leaf'} style={{ width: `${100 * shareOf(render)}%` }} />
    </Box>
  );
}
