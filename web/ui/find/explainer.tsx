'use client';

import { Box, Flex, Heading, Portal, Text } from '@chakra-ui/react';
import { X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { FloatCard } from '../parts/float-card';
import { PictureButton } from '../parts/buttons';
import { explain, type Explanation } from './explain';
import { useExplainer } from './open-stores';

const close = () => useExplainer.setState({ open: false });

/** Explains what the pointer or the focus is on, while switched on. */
export function Explainer() {
  const open = useExplainer((s) => s.open);
  return open ? <ExplainerCard /> : null;
}

function ExplainerCard() {
  const [said, setSaid] = useState<Explanation | null>(() =>
    explain([...document.querySelectorAll(':hover')].at(-1) ?? document.activeElement),
  );
  useEffect(() => {
    const look = (target: EventTarget | null) => {
      if (!(target instanceof Element) || target.closest('[data-explainer]')) return;
      const next = explain(target);
      if (next) setSaid((last) => (last && JSON.stringify(last) === JSON.stringify(next) ? last : next));
    };
    const onOver = (event: Event) => look(event.target);
    const onKey = (event: KeyboardEvent) => event.key === 'Escape' && close();
    document.addEventListener('pointerover', onOver);
    document.addEventListener('focusin', onOver);
    window.addEventListener('keydown', onKey);
    return () => {
      document.removeEventListener('pointerover', onOver);
      document.removeEventListener('focusin', onOver);
      window.removeEventListener('keydown', onKey);
    };
  }, []);
  return (
    <Portal>
      <FloatCard
        aria-label="What is this?"
        data-explainer
        left="50%"
        bottom="14px"
        transform="translateX(-50%)"
        w="440px"
        maxW="calc(100vw - 24px)"
      >
        <Flex align="center" minH="22px">
          <Heading as="h2" fontFamily="heading" fontSize="14px" flex="1" truncate>
            {said?.name ?? 'What is this?'}
          </Heading>
          <PictureButton label="Put the explanation away" onClick={close}>
            <X size={15} />
          </PictureButton>
        </Flex>
        <Box role="status" fontSize="13px" lineHeight="1.5">
          {said ? (
            <>
              {said.help && <Text>{said.help}</Text>}
              {said.words.map((w) => (
                <Text key={w.word} mt={said.help ? '1' : '0'}>
                  <Text as="strong" fontWeight="600">
                    {w.word}:
                  </Text>{' '}
                  {w.text}
                </Text>
              ))}
            </>
          ) : (
            <Text color="muted">Point at something, or move to it with Tab. Escape puts this away.</Text>
          )}
        </Box>
      </FloatCard>
    </Portal>
  );
}
