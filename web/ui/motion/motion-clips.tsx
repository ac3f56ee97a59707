'use client';

import { Flex } from '@chakra-ui/react';
import type { NumberValue } from '@maypole/core/declare/params';
import { motionFrom, motionLook } from '@maypole/core/looks/kept-parts';
import { clipText, readClip } from '@maypole/core/piece/clip-text';
import type { MotionDoc } from '@maypole/core/time/motion';
import { isMoving } from '@maypole/core/time/value';
import { ClipboardCopy, ClipboardPaste } from 'lucide-react';
import { KeptLooks } from '../looks/kept-looks';
import { PlainButton } from '../parts/buttons';
import { tellTrouble } from '../parts/toasts';
import { copyText } from '../state/clipboard';
import { useEditor } from '../state/store';

interface Props {
  readonly value: NumberValue;
  /** The motion with what it follows resolved, because another piece does not have its source. */
  readonly linked: NumberValue;
  readonly label: string;
  readonly onUse: (motion: MotionDoc, words: string) => void;
}

/** Carries a motion from one value to another, here or in another piece: as text, or kept under a name. */
export function MotionClips({ value, linked, label, onUse }: Props) {
  const moving = isMoving(value) && isMoving(linked) && value.motion !== 'follow' ? value : null;
  const loop = () => useEditor.getState().piece.loop;
  const paste = async () => {
    try {
      const clip = readClip(await navigator.clipboard.readText());
      const motion = clip.ok ? motionFrom(clip.look) : undefined;
      if (motion) onUse(motion, `Paste motion of ${label}`);
      else tellTrouble(clip.ok || clip.none ? 'No motion was copied. Copy one first.' : clip.message);
    } catch {
      tellTrouble('The browser did not show what was copied. Allow it for this page, and try again.');
    }
  };
  return (
    <Flex gap="1.5" mb="2.5" align="center">
      {moving && (
        <PlainButton
          size="2xs"
          h="26px"
          onClick={() =>
            void copyText(
              clipText('motion', motionLook(label, loop(), moving)),
              'The motion is copied; paste it onto any value, or into a mail.',
            )
          }
        >
          <ClipboardCopy size={13} /> Copy
        </PlainButton>
      )}
      <PlainButton size="2xs" h="26px" fontSize="12px" onClick={() => void paste()}>
        <ClipboardPaste size={13} /> Paste
      </PlainButton>
      <Flex flex="1" />
      <KeptLooks
        kind="motion"
        now={moving ? (name) => motionLook(name, loop(), moving) : null}
        onUse={(look, name) => {
          const motion = motionFrom(look);
          if (motion) onUse(motion, `Motion: ${name}`);
        }}
      />
    </Flex>
  );
}
