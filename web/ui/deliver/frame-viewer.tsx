'use client';

import { Box, Dialog, Flex, Portal, Text, chakra } from '@chakra-ui/react';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import type { RenderDetail, RenderSummary } from '@/contract/renders';
import { SelectField } from '../fields/select-field';
import { Choice } from '../parts/choice';
import { PictureButton, PlainButton } from '../parts/buttons';
import { framePath } from './render-api';

type How = 'this' | 'other' | 'difference';

/** A finished frame, large, beside the same frame of another render. */
export function FrameViewer({
  render,
  index,
  others,
  onIndex,
  onClose,
}: {
  render: RenderDetail;
  index: number;
  /** Renders of the same piece to compare with. */
  others: readonly RenderSummary[];
  onIndex: (index: number) => void;
  onClose: () => void;
}) {
  const [other, setOther] = useState('');
  const [how, setHow] = useState<How>('this');
  const done = render.parts.filter((p) => p.state === 'done').map((p) => p.index);
  const at = done.indexOf(index);
  const go = (by: number) => onIndex(done[(at + by + done.length) % done.length]);
  const { width, height } = render.order;
  const frame = render.parts[index]?.frame ?? index;
  return (
    <Dialog.Root open onOpenChange={({ open }) => !open && onClose()} placement="center">
      <Portal>
        <Dialog.Backdrop bg="blackAlpha.700" />
        <Dialog.Positioner>
          <Dialog.Content
            bg="panel"
            borderRadius="14px"
            p="4"
            maxW="min(92vw, 1000px)"
            onKeyDown={(e) => {
              if (e.key === 'ArrowLeft') go(-1);
              if (e.key === 'ArrowRight') go(1);
            }}
          >
            <Flex align="center" gap="2" mb="3">
              <Dialog.Title fontFamily="heading" fontSize="17px" flex="1">
                {render.name}, frame {frame}
              </Dialog.Title>
              <PictureButton label="Frame before" onClick={() => go(-1)}>
                <ChevronLeft size={18} />
              </PictureButton>
              <PictureButton label="Frame after" onClick={() => go(1)}>
                <ChevronRight size={18} />
              </PictureButton>
              <PlainButton onClick={onClose}>Close</PlainButton>
            </Flex>
            <Box
              position="relative"
              mx="auto"
              bg="black"
              borderRadius="6px"
              overflow="hidden"
              style={{ aspectRatio: `${width} / ${height}`, width: `min(100%, ${(70 * width) / height}vh)` }}
            >
              <Layer src={framePath(render.id, index)} />
              {other && how === 'other' && <Layer src={framePath(other, index)} />}
              {other && how === 'difference' && <Layer src={framePath(other, index)} difference />}
            </Box>
            {others.length > 0 && (
              <Flex align="center" gap="3" mt="3" wrap="wrap">
                <Text fontSize="12.5px" color="muted" flexShrink={0}>
                  Compare with
                </Text>
                <Box w="220px">
                  <SelectField
                    label="Compare with"
                    value={other}
                    options={[
                      { value: '', title: 'Nothing' },
                      ...others.map((o) => ({ value: o.id, title: `Revision ${o.revision}, ${clock(o.createdAt)}` })),
                    ]}
                    onChange={setOther}
                  />
                </Box>
                {other && (
                  <Choice<How>
                    label="What is shown"
                    value={how}
                    onChange={setHow}
                    options={[
                      { value: 'this', title: 'This' },
                      { value: 'other', title: 'The other' },
                      { value: 'difference', title: 'Difference' },
                    ]}
                  />
                )}
              </Flex>
            )}
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

const clock = (text: string) => new Date(text).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });

function Layer({ src, difference = false }: { src: string; difference?: boolean }) {
  return (
    <chakra.img
      src={src}
      alt={difference ? 'What differs, on black' : ''}
      position="absolute"
      inset="0"
      w="100%"
      h="100%"
      objectFit="contain"
      mixBlendMode={difference ? 'difference' : 'normal'}
    />
  );
}
