'use client';

import { Box, Flex, Heading, Text } from '@chakra-ui/react';
import { ChevronLeft, Dices, LockOpen, Radar } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { NumberField } from '../fields/number-field';
import { SelectField } from '../fields/select-field';
import { PictureButton, PlainButton } from '../parts/buttons';
import { Choice } from '../parts/choice';
import { goBack, useSheet } from './sheet-store';
import { chooseTelling } from './sheet-work';
import { GroupChips, VariableTree } from './variable-list';

const COUNTS = [12, 24, 40, 60] as const;

/** What varies, how far, and the layout of the sheet. */
export function SheetSettings() {
  const { reach, count, seed, trail } = useSheet();
  const [tree, setTree] = useState(false);
  const set = useSheet.setState;
  return (
    <Box w="284px" flexShrink={0} overflowY="auto" borderRightWidth="1px" borderColor="line" bg="panel" px="4" pb="5">
      <Flex align="center" minH="44px">
        <Heading as="h2" fontFamily="heading" fontSize="16px" flex="1">
          Variations
        </Heading>
        {trail.length > 0 && (
          <PlainButton size="xs" onClick={goBack}>
            <ChevronLeft size={14} /> Sheet before
          </PlainButton>
        )}
      </Flex>
      <Part title="What varies">
        <GroupChips />
        <Flex gap="2" mt="3">
          <PlainButton size="xs" flex="1" onClick={() => void chooseTelling()}>
            <Radar size={14} /> What matters most
          </PlainButton>
          <PlainButton size="xs" aria-expanded={tree} onClick={() => setTree(!tree)}>
            Every value
          </PlainButton>
        </Flex>
        {tree && (
          <Box mt="2">
            <VariableTree />
          </Box>
        )}
      </Part>
      <Part title="How">
        <Row label="How far">
          <NumberField
            label="How far"
            value={Math.round(100 * reach)}
            unit="%"
            min={1}
            max={100}
            soft={[0, 100]}
            step={1}
            integer
            onChange={(v) => set({ reach: v / 100 })}
          />
        </Row>
        <Row label="Seed">
          <NumberField
            label="Seed"
            value={seed}
            unit=""
            min={0}
            max={99_999}
            soft={[0, 100]}
            step={1}
            integer
            onChange={(v) => set({ seed: v })}
          />
          <PictureButton label="Another throw" onClick={() => set({ seed: seed + 1 })}>
            <Dices size={17} />
          </PictureButton>
        </Row>
        <Box mt="1.5">
          <Choice
            label="Tiles"
            value={`${count}`}
            options={COUNTS.map((n) => ({ value: `${n}`, title: `${n}` }))}
            onChange={(n) => set({ count: Number(n) })}
          />
        </Box>
      </Part>
      <Part title="Laid out">
        <LaidOut />
      </Part>
      <KeptAsTheyAre />
    </Box>
  );
}

/** How the tiles are laid out. */
function LaidOut() {
  const { way, variables } = useSheet();
  const set = useSheet.setState;
  return (
    <>
      {way.type === 'mix' ? (
        <Text fontSize="12.5px">Between two variations.</Text>
      ) : (
        <Choice
          label="Laid out"
          value={way.type}
          options={[
            { value: 'spread', title: 'Spread', help: 'All that varies, nearest first' },
            { value: 'axes', title: 'Along axes', help: 'One value across, another down' },
          ]}
          onChange={(type) =>
            set({
              way: type === 'axes' ? { type, across: firstOf(), down: '' } : { type: 'spread' },
            })
          }
        />
      )}
      {way.type === 'axes' &&
        (['across', 'down'] as const).map((axis) => (
          <Row key={axis} label={axis === 'across' ? 'Across' : 'Down'}>
            <SelectField
              label={axis === 'across' ? 'Across' : 'Down'}
              value={way[axis]}
              options={[
                ...(axis === 'down' ? [{ value: '', title: 'Nothing' }] : []),
                ...variables.map((v) => ({ value: v.key, title: `${v.title}, ${v.place}` })),
              ]}
              onChange={(key) => set({ way: { ...way, [axis]: key } })}
            />
          </Row>
        ))}
    </>
  );
}

/** Values that are held, to be let go. */
function KeptAsTheyAre() {
  const { variables, locked } = useSheet();
  const set = useSheet.setState;
  if (locked.size === 0) return null;
  return (
    <Part title="Kept as they are">
      {variables
        .filter((v) => locked.has(v.key))
        .map((v) => (
          <Flex key={v.key} align="center" minH="26px" fontSize="12.5px">
            <Text flex="1" truncate>
              {v.title}
            </Text>
            <PictureButton
              label={`Let ${v.title} vary again`}
              onClick={() => set({ locked: new Set([...locked].filter((k) => k !== v.key)) })}
            >
              <LockOpen size={14} />
            </PictureButton>
          </Flex>
        ))}
    </Part>
  );
}

/** The first value that varies, for an axis. */
function firstOf(): string {
  const { variables, chosen } = useSheet.getState();
  return (variables.find((v) => chosen.has(v.key)) ?? variables[0])?.key ?? '';
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box mt="4">
      <Heading as="h3" fontSize="12.5px" fontWeight="600" color="muted" mb="2">
        {title}
      </Heading>
      {children}
    </Box>
  );
}

function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Flex align="center" gap="2" minH="32px">
      <Text w="64px" flexShrink={0} fontSize="12.5px">
        {label}
      </Text>
      <Flex flex="1" minW="0" align="center" gap="1">
        {children}
      </Flex>
    </Flex>
  );
}
