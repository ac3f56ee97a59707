'use client';

import { Flex, chakra } from '@chakra-ui/react';
import type { NumberParam, VectorParam } from '@maypole/core/declare/params';
import { asKeys, motionActions } from '@maypole/core/seam/actions';
import type { MotionDoc } from '@maypole/core/time/motion';
import { useEditor } from '../state/store';

interface Props {
  readonly motion: MotionDoc;
  /** The motion with the values it follows resolved. */
  readonly linked: MotionDoc;
  readonly param: NumberParam | VectorParam;
  readonly own: string;
  readonly onApply: (motion: MotionDoc, title: string) => void;
}

/** Usual repairs of a motion, each one click; hovering previews it. */
export function ActionRow({ motion, linked, param, own, onApply }: Props) {
  const frames = useEditor((s) => s.piece.loop.frames);
  // Some start at the playhead; during playback there is none.
  const frame = useEditor((s) => (s.playing ? 0 : s.frame));
  const offers = motionActions
    .map((a) => ({ id: a.id, title: a.title, help: a.help, result: a.apply(motion, { param, frames, frame }) }))
    .concat(
      motion.motion === 'keys'
        ? []
        : [
            {
              id: 'keys',
              title: 'Make keys of it',
              help: 'Twelve keys on a smooth curve, to shape by hand',
              result: asKeys(linked, 12, frames),
            },
          ],
    );
  const show = (result: MotionDoc | null) =>
    useEditor.setState({ preview: result ? { key: own, value: result } : null });
  return (
    <Flex wrap="wrap" gap="1">
      {offers.map(({ id, title, help, result }) => {
        if (!result) return null;
        // A follower's source is resolved, so that the preview shows it as evaluated.
        const seen = motion.motion === 'follow' ? ({ ...result, source: linked.source } as MotionDoc) : result;
        return (
          <chakra.button
            key={id}
            type="button"
            title={help}
            px="2"
            py="1"
            borderRadius="6px"
            borderWidth="1px"
            borderColor="line"
            bg="raised"
            fontSize="12px"
            fontWeight="500"
            cursor="pointer"
            _hover={{ borderColor: 'lineStrong' }}
            onMouseEnter={() => show(seen)}
            onFocus={() => show(seen)}
            onMouseLeave={() => show(null)}
            onBlur={() => show(null)}
            onClick={() => {
              show(null);
              onApply(result, title);
            }}
          >
            {title}
          </chakra.button>
        );
      })}
    </Flex>
  );
}
