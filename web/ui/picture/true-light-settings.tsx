'use client';

import { Box, Flex, Popover, Portal, Text, chakra } from '@chakra-ui/react';
import { SlidersHorizontal } from 'lucide-react';
import type { ReactNode } from 'react';
import { NumberField } from '../fields/number-field';
import { SwitchField } from '../fields/switch-field';
import { Choice } from '../parts/choice';
import { aboutShare } from './traced';
import { EFFORTS, effortOf, setTrueLight, useTrueLight } from '../state/true-light';

/**
 * Effort and display of a picture in true light.
 *
 * @param leftOut share of light that the clamp removes from the current picture; null without one
 */
export function TrueLightSettings({ leftOut }: { leftOut: number | null }) {
  return (
    <Popover.Root positioning={{ placement: 'top-start' }} lazyMount unmountOnExit>
      <Popover.Trigger asChild>
        <chakra.button
          type="button"
          aria-label="True light settings"
          data-opens="true-settings"
          title="Samples, bounces, denoising"
          px="1.5"
          py="1"
          borderRadius="6px"
          cursor="pointer"
          _hover={{ bg: 'field' }}
        >
          <SlidersHorizontal size={15} />
        </chakra.button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content
            w="300px"
            overflowY="auto"
            bg="panel"
            borderRadius="12px"
            boxShadow="float"
            p="4"
            aria-label="True light"
          >
            <Settings leftOut={leftOut} />
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}

function Settings({ leftOut }: { leftOut: number | null }) {
  const s = useTrueLight();
  const effort = effortOf(s);
  return (
    <Flex direction="column" gap="2" fontSize="12.5px">
      <Choice
        label="Effort"
        height={28}
        value={effort ?? ''}
        options={EFFORTS.map((e) => ({ value: e.id as string, title: e.title, help: e.help }))}
        onChange={(id) => setTrueLight(EFFORTS.find((e) => e.id === id)!.effort)}
      />
      <Text color="muted" fontSize="11.5px" mb="1">
        {EFFORTS.find((e) => e.id === effort)?.help ?? 'Set by hand'}
      </Text>
      <Row title="At least" help="Samples that every pixel gets">
        <Count
          label="Samples at least"
          value={s.least}
          max={65_536}
          usual={128}
          set={(least) => setTrueLight({ least })}
        />
      </Row>
      <Row title="At most" help="The most samples that a pixel gets">
        <Count
          label="Samples at most"
          value={s.most}
          max={65_536}
          usual={2048}
          set={(most) => setTrueLight({ most })}
        />
      </Row>
      <Row
        title="Error"
        help="Pixels stop once their grain is below this; 0 gives all pixels the same number of samples"
      >
        <NumberField
          label="Error"
          value={s.error}
          unit="%"
          min={0}
          max={100}
          soft={[0, 10]}
          step={0.1}
          onChange={(error) => setTrueLight({ error })}
        />
      </Row>
      <Heading>Bounces</Heading>
      <Bounces leftOut={leftOut} />
      <Heading>Looking</Heading>
      <Row title="Denoise" help="Smooths the grain that is left, along surfaces">
        <SwitchField label="Denoise" value={s.denoise} onChange={(denoise) => setTrueLight({ denoise })} />
      </Row>
      <Row title="Samples" help="Where samples went: dark few, bright many">
        <SwitchField label="Show samples" value={s.map} onChange={(map) => setTrueLight({ map })} />
      </Row>
      <Row title="Compare" help="Quick light to the left of a line, true light to the right">
        <SwitchField
          label="Compare with quick light"
          value={s.compare}
          onChange={(compare) => setTrueLight({ compare })}
        />
      </Row>
    </Flex>
  );
}

/** How far light is followed, by kind of surface, and what of it is held. */
function Bounces({ leftOut }: { leftOut: number | null }) {
  const s = useTrueLight();
  const bounces = (change: Partial<typeof s.bounces>) => setTrueLight({ bounces: { ...s.bounces, ...change } });
  return (
    <>
      <Row title="Matt" help="Off matt surfaces; 0 is light straight from lamps">
        <Count
          label="Matt bounces"
          value={s.bounces.diffuse}
          min={0}
          max={64}
          usual={16}
          set={(matt) => bounces({ diffuse: matt })}
        />
      </Row>
      <Row title="Mirror" help="Off mirrors, metal and gloss">
        <Count
          label="Mirror bounces"
          value={s.bounces.glossy}
          min={0}
          max={64}
          usual={16}
          set={(glossy) => bounces({ glossy })}
        />
      </Row>
      <Row title="Glass" help="Through glass and off it">
        <Count
          label="Glass bounces"
          value={s.bounces.transmission}
          min={0}
          max={64}
          usual={32}
          set={(glass) => bounces({ transmission: glass })}
        />
      </Row>
      <Row title="Air" help="Light in the air is followed for so many bounces of any kind; 0 is what is seen straight">
        <Count label="Air bounces" value={s.bounces.air} min={0} max={64} usual={16} set={(air) => bounces({ air })} />
      </Row>
      <Row
        title="Limit"
        help={
          'Light that comes by a surface is held to this brightness: fewer lone bright pixels, and a little less ' +
          'light where many mirrors are'
        }
      >
        <SwitchField
          label="Limit bright pixels"
          value={s.brightest !== null}
          onChange={(on) => setTrueLight({ brightest: on ? 20 : null })}
        />
        {s.brightest !== null && (
          <NumberField
            label="Brightest"
            value={s.brightest}
            unit="×"
            min={0.01}
            max={1e6}
            soft={[1, 100]}
            step={0.5}
            onChange={(brightest) => setTrueLight({ brightest })}
          />
        )}
      </Row>
      {s.brightest !== null && leftOut !== null && (
        <Text color="muted" fontSize="11.5px" pl="84px" data-testid="left-out">
          Takes away {aboutShare(leftOut)} of the light
        </Text>
      )}
    </>
  );
}

function Heading({ children }: { children: ReactNode }) {
  return (
    <Text fontWeight="700" mt="2">
      {children}
    </Text>
  );
}

function Row({ title, help, children }: { title: string; help: string; children: ReactNode }) {
  return (
    <Flex align="center" gap="3" title={help} minH="24px">
      <Text w="72px" flexShrink={0} color="muted">
        {title}
      </Text>
      <Flex flex="1" align="center" gap="2" minW="0">
        {children}
      </Flex>
    </Flex>
  );
}

function Count({
  label,
  value,
  min = 1,
  max,
  usual,
  set,
}: {
  label: string;
  value: number;
  min?: number;
  max: number;
  usual: number;
  set: (value: number) => void;
}) {
  return (
    <Box flex="1" minW="0">
      <NumberField
        label={label}
        value={value}
        min={min}
        max={max}
        soft={[min, usual]}
        step={1}
        integer
        onChange={set}
      />
    </Box>
  );
}
