'use client';

import { Flex, Menu, Text, chakra } from '@chakra-ui/react';
import { Camera, Check, Grid3x3, Scan, Video } from 'lucide-react';
import type { ReactNode } from 'react';
import { focusOnRibbon, frameAll, isometric, MOVES, moveCamera } from '../state/camera';
import { GUIDES, showGuide, useGuides } from '../state/guides';
import { sceneNow } from '../state/derived';
import { LiveText } from '../state/live';
import { useEditor } from '../state/store';
import { MenuList } from '../parts/menu-list';

const button = {
  display: 'flex',
  alignItems: 'center',
  gap: '1.5',
  px: '2.5',
  py: '1',
  borderRadius: '6px',
  fontSize: '12.5px',
  fontWeight: '500',
  cursor: 'pointer',
  whiteSpace: 'nowrap',
  flexShrink: 0,
  _hover: { bg: 'field' },
} as const;

/** The lens in words. */
const lensWords = ({ parallel, focalLength }: { parallel: number; focalLength: number }) =>
  parallel > 0 ? 'Parallel' : `${Math.round(focalLength)} mm`;

/** Camera settings, camera moves, guide lines, and framing everything. */
export function CameraBar({ narrow }: { narrow: boolean }) {
  const shown = useGuides((s) => s.shown);
  return (
    <Flex bg="panel" borderRadius="8px" p="3px" boxShadow="card" pointerEvents="auto">
      <chakra.button
        type="button"
        {...button}
        title="Camera settings"
        onClick={() => useEditor.setState({ drawer: 'scene' })}
      >
        <Camera size={15} />
        <LiveText of={(s) => lensWords(sceneNow(s).camera)} />
      </chakra.button>
      <BarMenu label="Camera moves" icon={<Video size={15} />}>
        {MOVES.map((m) => (
          <Menu.Item key={m.id} value={m.id} title={m.help} onClick={() => moveCamera(m.id)}>
            {m.title}
          </Menu.Item>
        ))}
        <Menu.Separator />
        <Menu.Item value="isometric" title="Rays parallel, the three axes equally long" onClick={isometric}>
          Isometric
        </Menu.Item>
        <Menu.Item
          value="focus"
          title="The next click on a form says what is sharp"
          onClick={() => useEditor.setState({ pick: 'focus' })}
        >
          Focus on a point…
        </Menu.Item>
        <Menu.Item
          value="focus-ribbon"
          title="The middle of the ribbon that is chosen stays sharp"
          onClick={focusOnRibbon}
        >
          Focus on this ribbon
        </Menu.Item>
      </BarMenu>
      <BarMenu label="Guides" icon={<Grid3x3 size={15} />} closes={false}>
        {GUIDES.map((g) => (
          <Menu.CheckboxItem
            key={g.id}
            value={g.id}
            checked={shown.includes(g.id)}
            onCheckedChange={(on) => showGuide(g.id, on)}
          >
            <Text flex="1">{g.title}</Text>
            {shown.includes(g.id) && <Check size={14} />}
          </Menu.CheckboxItem>
        ))}
      </BarMenu>
      <chakra.button
        type="button"
        {...button}
        title="Bring everything into the picture (C)"
        aria-label="Frame all"
        onClick={frameAll}
      >
        <Scan size={15} />
        {!narrow && 'Frame all'}
      </chakra.button>
    </Flex>
  );
}

function BarMenu({
  label,
  icon,
  closes = true,
  children,
}: {
  label: string;
  icon: ReactNode;
  closes?: boolean;
  children: ReactNode;
}) {
  return (
    <Menu.Root positioning={{ placement: 'bottom-end' }} closeOnSelect={closes} lazyMount>
      <Menu.Trigger asChild>
        <chakra.button type="button" {...button} px="2" title={label} aria-label={label}>
          {icon}
        </chakra.button>
      </Menu.Trigger>
      <MenuList minW="190px">{children}</MenuList>
    </Menu.Root>
  );
}
