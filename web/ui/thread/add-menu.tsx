'use client';

import { canvas2d } from '@/view/stage/canvas-2d';
import { Box, Flex, Popover, Portal, Text, chakra } from '@chakra-ui/react';
import { Search, type Findable } from '@maypole/core/find/search';
import { holdsOf } from '@maypole/core/find/settings';
import { TRADE_WORDS } from '@maypole/core/find/trade-words';
import { stepGroups, stepKinds } from '@maypole/core/steps/index';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { focusAfterClosing } from '../parts/focus-after';
import { StepIcon } from '../parts/icons';
import { addStep } from '../state/actions';
import { useEditor } from '../state/store';
import { focusFirstValue, focusForm } from './focus-value';
import { lastSteps, noteStep } from './last-steps';
import { SKETCH, useSketches } from './step-sketches';

interface Props {
  /** Forms only, or everything but forms. */
  readonly group: 'form' | 'steps';
  readonly label: string;
  /** The ribbon that a chosen step is added to. */
  readonly ribbonId?: string;
  readonly onChoose?: (kind: string) => void;
  readonly children: ReactNode;
}

const FOUND = { group: 'found', title: 'Found' };
const LAST = { group: 'last', title: 'Added last' };
/** Most steps shown for a question. */
const MOST = 12;

const offered = (group: Props['group']) => stepKinds.filter((k) => (k.group === 'form') === (group === 'form'));
const search = Object.fromEntries(
  (['form', 'steps'] as const).map((group) => [
    group,
    new Search(
      offered(group).map((k) => ({
        kind: k,
        title: k.title,
        also: TRADE_WORDS[`step:${k.kind}`],
        holds: holdsOf(k.params),
        help: k.help,
      })),
    ),
  ]),
) as Record<Props['group'], Search<Findable & { readonly kind: (typeof stepKinds)[number] }>>;

/** Steps that a question means, best first; all of them without one. */
function stepsFor(group: Props['group'], query: string): readonly (typeof stepKinds)[number][] {
  if (query.trim() === '') return offered(group);
  return search[group]
    .find(query)
    .slice(0, MOST)
    .map((found) => found.kind);
}

/** The menu of steps; it finds by the same words as the command field. */
export function AddMenu({ group, label, ribbonId, onChoose, children }: Props) {
  const [open, setOpen] = useState(false);
  const [query, setQuery] = useState('');
  const asked = query.trim() !== '';
  const kinds = useMemo(() => stepsFor(group, query), [group, query]);
  // Read anew each time the menu opens.
  const last = useMemo(() => (open ? lastSteps(group) : []), [open, group]);
  const tone = useEditor((s) => s.piece.ribbons.find((r) => r.id === ribbonId)?.colour ?? '#D9483B');
  // Steps for curves come first if the ribbon begins with a curve, and last otherwise.
  const drawn = useEditor((s) =>
    ['outline', 'curve', 'text', 'svg'].includes(s.piece.ribbons.find((r) => r.id === ribbonId)?.steps[0]?.kind ?? ''),
  );
  const groups = drawn
    ? stepGroups
    : [...stepGroups].sort((a, b) => Number(a.group === 'curve') - Number(b.group === 'curve'));
  const all = useMemo(
    () => stepKinds.filter((k) => (k.group === 'form') === (group === 'form')).map((k) => k.kind),
    [group],
  );
  const pictures = useSketches(open, ribbonId, all, tone);
  const choose = (kind: string) => {
    setOpen(false);
    setQuery('');
    noteStep(group, kind);
    if (onChoose) {
      onChoose(kind);
      focusForm();
    } else if (ribbonId) {
      addStep(ribbonId, kind);
      const { held } = useEditor.getState();
      if (held) focusFirstValue(held);
    }
  };
  return (
    <Popover.Root
      finalFocusEl={focusAfterClosing}
      open={open}
      onOpenChange={(d) => setOpen(d.open)}
      positioning={{ placement: 'right-start', strategy: 'fixed' }}
      lazyMount
      unmountOnExit
    >
      <Popover.Trigger asChild>{children}</Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content
            width="472px"
            maxH="min(640px, calc(100vh - 24px))"
            overflowY="auto"
            bg="panel"
            borderRadius="12px"
            borderWidth="1px"
            borderColor="line"
            boxShadow="float"
            aria-label={label}
          >
            <Popover.Body p="2.5">
              <chakra.input
                aria-label="Find a step"
                placeholder="What should it do?"
                value={query}
                onChange={(e) => setQuery(e.target.value)}
                onKeyDown={(e) => e.key === 'Enter' && kinds[0] && choose(kinds[0].kind)}
                w="100%"
                h="30px"
                px="2.5"
                bg="field"
                borderRadius="field"
                fontSize="13px"
                mb="1.5"
                _placeholder={{ color: 'muted' }}
              />
              {(asked ? [FOUND] : [LAST, ...groups]).map(({ group: g, title }) => {
                const mine = asked ? kinds : g === LAST.group ? last : kinds.filter((k) => k.group === g);
                if (mine.length === 0) return null;
                return (
                  <Box key={g} mt="1.5">
                    {(group !== 'form' || g === LAST.group) && !asked && (
                      <Text fontSize="11px" color="muted" fontWeight="600" px="2" mb="0.5">
                        {title}
                      </Text>
                    )}
                    <Box display="grid" gridTemplateColumns="1fr 1fr" columnGap="1">
                      {mine.map((k) => (
                        <StepChoice
                          key={k.kind}
                          kind={k}
                          image={pictures.get(k.kind)}
                          onChoose={() => choose(k.kind)}
                        />
                      ))}
                    </Box>
                  </Box>
                );
              })}
              {kinds.length === 0 && (
                <Text fontSize="12.5px" color="muted" p="2">
                  Nothing here does “{query}”.
                </Text>
              )}
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}

/** A step of the menu: what it would make, its name, and what it does. */
function StepChoice({
  kind: k,
  image,
  onChoose,
}: {
  kind: (typeof stepKinds)[number];
  image: Uint8ClampedArray<ArrayBuffer> | undefined;
  onChoose: () => void;
}) {
  return (
    <chakra.button
      type="button"
      onClick={onChoose}
      display="flex"
      w="100%"
      gap="2.5"
      alignItems="center"
      textAlign="left"
      px="2"
      py="1.5"
      borderRadius="field"
      cursor="pointer"
      _hover={{ bg: 'field' }}
      _focusVisible={{ bg: 'field' }}
    >
      <Flex
        w="46px"
        h="46px"
        borderRadius="8px"
        borderWidth="1px"
        borderColor="line"
        bg="raised"
        align="center"
        justify="center"
        flexShrink={0}
        overflow="hidden"
      >
        {image ? <Sketch image={image} /> : <StepIcon name={k.icon} />}
      </Flex>
      <Box minW="0">
        <Text fontWeight="600" fontSize="13px" lineHeight="1.3">
          {k.title}
        </Text>
        <Text color="muted" fontSize="12px" lineHeight="1.3">
          {k.help}
        </Text>
      </Box>
    </chakra.button>
  );
}

/** Preview of what a step would make of the form. */
function Sketch({ image }: { image: Uint8ClampedArray<ArrayBuffer> }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => canvas2d(canvas.current)?.putImageData(new ImageData(image, SKETCH, SKETCH), 0, 0), [image]);
  return (
    <canvas
      ref={canvas}
      width={SKETCH}
      height={SKETCH}
      aria-hidden="true"
      data-testid="sketch"
      style={{ width: 44, height: 44 }}
    />
  );
}
