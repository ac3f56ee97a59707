'use client';

import { Menu, Text, chakra } from '@chakra-ui/react';
import { Check } from 'lucide-react';
import { MenuList } from '../parts/menu-list';
import { useEditor } from '../state/store';
import { useRefined } from './refined';

/** Fewer sub-frames than this are done before their progress could be read. */
const WORTH_COUNTING = 17;

const CHOICES = [
  {
    value: null,
    title: 'As many as it needs',
    help: 'By what is in the picture: more for soft shadows and depth of field',
  },
  { value: 64, title: '64', help: 'Enough for most pictures' },
  { value: 256, title: '256', help: 'For a wide open lens, or shadows of large lights' },
  { value: 1024, title: '1024', help: 'To judge the finest grain; takes a while' },
] as const;

/** Sub-frames averaged so far, and how many a still picture gets. */
export function SubframesChoice({ narrow }: { narrow: boolean }) {
  const { done, of } = useRefined();
  const chosen = useEditor((s) => s.subframes);
  // The focus view is per point, and not averaged.
  if (of < 2) return null;
  const counted = of < WORTH_COUNTING ? `${of}` : `${done} of ${of}`;
  return (
    <Menu.Root positioning={{ placement: 'top-start' }} lazyMount>
      <Menu.Trigger asChild>
        <chakra.button
          type="button"
          px="3"
          py="1.5"
          color="muted"
          cursor="pointer"
          borderLeftWidth="1px"
          borderColor="line"
          fontVariantNumeric="tabular-nums"
          _hover={{ bg: 'field' }}
          title="Sub-frames averaged while the picture stands still: for soft shadows, depth of field and clean edges"
        >
          {counted}
          {!narrow && ' sub-frames'}
        </chakra.button>
      </Menu.Trigger>
      <MenuList minW="210px" aria-label="Sub-frames while it stands still">
        {CHOICES.map(({ value, title, help }) => (
          <Menu.Item
            key={title}
            value={String(value)}
            title={help}
            onClick={() => useEditor.setState({ subframes: value })}
          >
            <Text flex="1">{title}</Text>
            {chosen === value && <Check size={14} />}
          </Menu.Item>
        ))}
      </MenuList>
    </Menu.Root>
  );
}
