'use client';

import { Box, Flex, Text } from '@chakra-ui/react';
import { renderSettings } from '@maypole/core/output/render-settings';
import { SwitchField } from '../fields/switch-field';
import { PlainButton } from '../parts/buttons';
import { useRefined, useTraced } from '../picture/refined';
import { LiveText } from '../state/live';
import { useEditor } from '../state/store';
import { setTrueLight, useTrueLight } from '../state/true-light';
import { inWords } from '../parts/words';
import { beginTrying, endTrying, useTrying } from './trying';

/** Shows the frame at the playhead as it will be delivered, so that samples and size are chosen by eye. */
export function TryFrame() {
  const trying = useTrying((s) => s.before !== null);
  const light = useEditor((s) => renderSettings(s.piece.render.values).light);
  if (!trying)
    return (
      <Flex mb="3">
        <PlainButton
          size="xs"
          title="Shows the frame at the playhead as it will be delivered, while you set samples and size"
          onClick={beginTrying}
        >
          Try on this frame
        </PlainButton>
      </Flex>
    );
  return (
    <Box mb="3" px="3" py="2.5" borderRadius="card" bg="field" data-testid="trying">
      <Flex align="center" gap="2">
        <Text flex="1" fontSize="12.5px" fontWeight="600">
          <LiveText of={(s) => `Frame ${Math.round(s.frame)} as it is delivered`} />
        </Text>
        <PlainButton size="xs" onClick={endTrying}>
          Leave
        </PlainButton>
      </Flex>
      <Text role="status" mt="1" fontSize="12.5px" lineHeight="1.5" color="muted" fontVariantNumeric="tabular-nums">
        {light === 'true' ? <TracedWords /> : <RefinedWords />}
      </Text>
      {light === 'true' && <MapSwitch />}
    </Box>
  );
}

function MapSwitch() {
  const map = useTrueLight((s) => s.map);
  return (
    <Flex align="center" gap="2" mt="1.5" fontSize="12.5px" title="Dark where few samples went, bright where many">
      <SwitchField label="Show where samples go" value={map} onChange={(value) => setTrueLight({ map: value })} />
      Show where samples go
    </Flex>
  );
}

function TracedWords() {
  const traced = useTraced((s) => s.traced);
  const format = useEditor((s) => s.piece.format);
  if (traced?.type !== 'picture' || traced.samples === 0) return 'Following rays…';
  const { samples, of, good, spent, left, pixels } = traced;
  const done = good >= 1 || samples >= of;
  const far = done ? 'Done' : `${samples} of ${of} samples${good > 0 ? `, ${Math.floor(100 * good)} % good` : ''}`;
  const all = done ? spent : left === null ? null : spent + left;
  if (all === null) return far;
  const { width, height } = format;
  return `${far}. At ${width} × ${height} ${inWords((all * width * height) / pixels)} a frame on this machine.`;
}

function RefinedWords() {
  const { done, of } = useRefined();
  return done < of ? `${done} of ${of} sub-frames` : `All ${of} sub-frames`;
}
