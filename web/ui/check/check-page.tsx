'use client';

import { Box, Flex, Heading, Table, Text } from '@chakra-ui/react';
import type { Checked } from '@/view/check/checked';
import type { Timed } from '@/view/check/speed-check';
import { PlainButton } from '../parts/buttons';
import { Check, TriangleAlert } from 'lucide-react';
import Link from 'next/link';
import { useEffect, useState } from 'react';

/** A cell border may fall on either side of a point. */
const MOST = 0.01;

/**
 * Whether this machine's graphics card draws light and patterns as core computes them: why a picture can be trusted.
 */
export function CheckPage() {
  const [list, setList] = useState<readonly Checked[]>([]);
  const [state, setState] = useState<'under way' | 'done' | string>('under way');
  useEffect(() => {
    let ended = false;
    void (async () => {
      try {
        const { checkNoise } = await import('@/view/check/noise-check');
        const { checkLight } = await import('@/view/check/light-check');
        const { checkForms } = await import('@/view/fields/form-check');
        const { checkAgainstLibrary } = await import('@/view/check/library-check');
        const { checkTrueLight } = await import('@/view/check/true-check');
        const { checkBits } = await import('@/view/check/bits-check');
        const { checkWorkers } = await import('@/engine/trace/workers-check');
        const all = [checkBits, checkWorkers, checkLight, checkAgainstLibrary, checkTrueLight, checkForms, checkNoise];
        for (const check of all)
          for await (const one of check()) {
            if (ended) return;
            setList((all) => [...all, one]);
          }
        setState('done');
      } catch (error) {
        setState(`It could not be looked at: ${(error as Error).message}`);
      }
    })();
    return () => void (ended = true);
  }, []);
  const wrong = list.filter((c) => c.share > MOST).length;
  const words =
    state === 'under way'
      ? `Comparing… ${list.length} so far`
      : state === 'done'
        ? wrong === 0
          ? `All ${list.length} agree`
          : `${wrong} of ${list.length} differ: pictures of this machine are not to be trusted in them`
        : state;
  return (
    <Box maxW="760px" mx="auto" px="6" py="8">
      <Link href="/">All pieces</Link>
      <Heading as="h1" fontSize="28px" mt="4">
        Does this machine draw right?
      </Heading>
      <Text color="muted" mt="1" mb="4">
        Light and patterns are drawn by the graphics card. Here patches are lit whose light is known by a formula, every
        noise is drawn and compared with the exact one, and quick light is held against true light, place by place.
      </Text>
      <Flex
        align="center"
        gap="2"
        mb="4"
        fontWeight="600"
        data-testid="verdict"
        data-state={state === 'done' ? (wrong ? 'differ' : 'agree') : 'open'}
      >
        {state === 'done' && (wrong === 0 ? <Check size={16} /> : <TriangleAlert size={16} />)}
        {words}
      </Flex>
      <Table.Root size="sm" variant="line">
        <Table.Header>
          <Table.Row bg="transparent">
            <Table.ColumnHeader>What</Table.ColumnHeader>
            <Table.ColumnHeader textAlign="end">Largest difference</Table.ColumnHeader>
            <Table.ColumnHeader textAlign="end">May be</Table.ColumnHeader>
            <Table.ColumnHeader textAlign="end">Places that differ</Table.ColumnHeader>
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {list.map((c) => (
            <Table.Row key={c.name} bg="transparent">
              <Table.Cell>{c.name}</Table.Cell>
              <Table.Cell textAlign="end" fontFamily="mono">
                {c.difference.toExponential(1)}
              </Table.Cell>
              <Table.Cell textAlign="end" fontFamily="mono" color="muted">
                {c.limit.toExponential(1)}
              </Table.Cell>
              <Table.Cell textAlign="end" fontFamily="mono" color={c.share > MOST ? 'poppy' : undefined}>
                {(100 * c.share).toFixed(2)} %
              </Table.Cell>
            </Table.Row>
          ))}
        </Table.Body>
      </Table.Root>
      {state === 'done' && <Speed />}
    </Box>
  );
}

/** Time per sub-frame on this machine, measured on request. */
function Speed() {
  const [list, setList] = useState<readonly Timed[]>([]);
  const [state, setState] = useState<'not yet' | 'under way' | 'done' | string>('not yet');
  const measure = async () => {
    setList([]);
    setState('under way');
    try {
      const { measureSpeed } = await import('@/view/check/speed-check');
      for await (const one of measureSpeed()) setList((all) => [...all, one]);
      setState('done');
    } catch (error) {
      setState(`It could not be measured: ${(error as Error).message}`);
    }
  };
  return (
    <Box as="section" mt="8" aria-label="Speed">
      <Heading as="h2" fontSize="20px" mb="1">
        How fast does it draw?
      </Heading>
      <Text color="muted" mb="3">
        What one sub-frame of 640 × 480 pixels takes. A picture that stands still is the average of several.
      </Text>
      <PlainButton onClick={() => void measure()} disabled={state === 'under way'}>
        {state === 'under way' ? 'Measuring…' : 'Measure'}
      </PlainButton>
      {state !== 'not yet' && state !== 'under way' && state !== 'done' && <Text role="alert">{state}</Text>}
      {list.length > 0 && (
        <Table.Root size="sm" variant="line" mt="3" data-testid="speed" data-state={state}>
          <Table.Body>
            {list.map((t) => (
              <Table.Row key={t.name} bg="transparent">
                <Table.Cell>{t.name}</Table.Cell>
                <Table.Cell textAlign="end" fontFamily="mono">
                  {t.milliseconds.toFixed(t.milliseconds < 10 ? 1 : 0)} ms
                </Table.Cell>
              </Table.Row>
            ))}
          </Table.Body>
        </Table.Root>
      )}
    </Box>
  );
}
