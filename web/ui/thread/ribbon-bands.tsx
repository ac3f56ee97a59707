'use client';

import { Box, Flex, Menu, chakra } from '@chakra-ui/react';
import { Plus } from 'lucide-react';
import { memo } from 'react';
import { addPair, addRibbon, duplicateRibbon, moveRibbon, removeRibbon } from '../state/actions';
import { useEditor } from '../state/store';
import { chooseRibbon, takeRibbon } from '../state/multi-edit';
import { BandPicture } from './band-picture';
import { AddMenu } from './add-menu';
import { MenuList } from '../parts/menu-list';

/** The ribbons as coloured bands, the selected one marked, with a context menu. */
export function RibbonBands() {
  const ribbons = useEditor((s) => s.piece.ribbons);
  const chosen = useEditor((s) => s.ribbonId);
  const also = useEditor((s) => s.alsoRibbons);
  return (
    <Flex
      as="nav"
      aria-label="Ribbons"
      direction="column"
      align="center"
      w="60px"
      flexShrink={0}
      bg="band"
      borderRightWidth="1px"
      borderColor="line"
      py="3"
      gap="2.5"
      overflowY="auto"
    >
      {ribbons.map((r) => (
        <Band
          key={r.id}
          id={r.id}
          name={r.name}
          on={r.on}
          colour={r.colour}
          chosen={r.id === chosen || also.includes(r.id)}
        />
      ))}
      <AddBand />
      <Box flex="1" />
    </Flex>
  );
}

const AddBand = memo(function AddBand() {
  return (
    <AddMenu group="form" label="Form of the new ribbon" onChoose={addRibbon}>
      <chakra.button
        type="button"
        aria-label="Add ribbon"
        title="Add ribbon"
        w="36px"
        h="36px"
        flexShrink={0}
        borderRadius="8px"
        borderWidth="1px"
        borderStyle="dashed"
        borderColor="lineStrong"
        color="muted"
        display="flex"
        alignItems="center"
        justifyContent="center"
        cursor="pointer"
        _hover={{ color: 'ink', borderColor: 'ink' }}
      >
        <Plus size={16} />
      </chakra.button>
    </AddMenu>
  );
});

const PLACE = { placement: 'right-start' } as const;

const Band = memo(function Band({
  id,
  name,
  on,
  colour,
  chosen,
}: {
  id: string;
  name: string;
  on: boolean;
  colour: string;
  chosen: boolean;
}) {
  return (
    <Menu.Root positioning={PLACE} lazyMount>
      <Menu.ContextTrigger asChild>
        <chakra.button
          type="button"
          aria-label={`Ribbon ${name}${on ? '' : ', switched off'}`}
          aria-current={chosen}
          title={`${name}. With Ctrl or Shift: choose it besides others`}
          position="relative"
          w="40px"
          h="64px"
          flexShrink={0}
          borderRadius="8px"
          bg={colour}
          opacity={on ? 1 : 0.4}
          color="white"
          fontSize="12px"
          fontWeight="700"
          textShadow="0 0 3px rgba(0,0,0,.55)"
          display="flex"
          flexDirection="column"
          alignItems="center"
          justifyContent="space-between"
          pt="1"
          pb="1.5"
          cursor="pointer"
          onClick={(e) => (e.ctrlKey || e.metaKey || e.shiftKey ? takeRibbon(id) : chooseRibbon(id))}
          _before={
            chosen
              ? {
                  content: '""',
                  position: 'absolute',
                  left: '-8px',
                  top: '8px',
                  bottom: '8px',
                  w: '4px',
                  borderRadius: 'full',
                  bg: 'ink',
                }
              : undefined
          }
        >
          <BandPicture id={id} />
          {name.slice(0, 2)}
        </chakra.button>
      </Menu.ContextTrigger>
      <MenuList>
        <Menu.Item
          value="switch"
          onClick={() => useEditor.getState().editRibbon('Switch ribbon', id, (x) => ({ ...x, on: !x.on }))}
        >
          {on ? 'Switch off' : 'Switch on'}
        </Menu.Item>
        <Menu.Item value="also" onClick={() => takeRibbon(id)}>
          Edit together with others
        </Menu.Item>
        <Menu.Item value="duplicate" onClick={() => duplicateRibbon(id)}>
          Duplicate
        </Menu.Item>
        <Menu.Item value="pair" onClick={() => addPair(id)}>
          Make a pair
        </Menu.Item>
        <Menu.Item value="up" onClick={() => moveRibbon(id, -1)}>
          Move up
        </Menu.Item>
        <Menu.Item value="down" onClick={() => moveRibbon(id, 1)}>
          Move down
        </Menu.Item>
        <Menu.Item value="remove" color="poppyText" onClick={() => removeRibbon(id)}>
          Remove
        </Menu.Item>
      </MenuList>
    </Menu.Root>
  );
});
