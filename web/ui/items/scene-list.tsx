'use client';

import { Box, Flex, Heading, Menu, Portal } from '@chakra-ui/react';
import { newItem } from '@maypole/core/piece/piece';
import { sceneLists, type SceneList } from '@maypole/core/scene/index';
import { Plus, Replace } from 'lucide-react';
import { PictureButton } from '../parts/buttons';
import { DeclaredIcon } from '../parts/icons';
import { useEditor } from '../state/store';
import { ItemCard } from './item-card';

const SKY = 'var(--chakra-colors-sky)';

/** A list of the scene: cards of its items, and a menu of the kinds that can be added. */
export function SceneItems({ list }: { list: SceneList }) {
  const items = useEditor((s) => s.piece.scene[list]);
  const edit = useEditor((s) => s.edit);
  const { title, kinds, least, most } = sceneLists[list];
  if (kinds.all.length === 0) return null;
  const change = (label: string, to: (old: typeof items) => typeof items) =>
    edit(label, (p) => ({ ...p, scene: { ...p.scene, [list]: to(p.scene[list]) } }));
  /** A list of one has no second: another kind takes its place. */
  const replaces = most === 1;
  const add = (kind: string) =>
    replaces
      ? change(kinds.get(kind).title, () => [newItem(kinds.get(kind))])
      : change(`Add ${kinds.get(kind).title.toLowerCase()}`, (old) => [...old, newItem(kinds.get(kind))]);
  return (
    <Box mt="2" mb="3" as="section" aria-label={title}>
      <Flex align="center" mb="1" minH="24px">
        <Heading as="h3" fontSize="12.5px" fontWeight="600" color="muted" flex="1">
          {title}
        </Heading>
        {(items.length < most || (replaces && kinds.all.length > 1)) && (
          <Menu.Root positioning={{ placement: 'bottom-end' }}>
            <Menu.Trigger asChild>
              <PictureButton
                label={replaces ? `Another ${title.toLowerCase()}` : `Add to ${title.toLowerCase()}`}
                color="muted"
              >
                {replaces ? <Replace size={14} /> : <Plus size={15} />}
              </PictureButton>
            </Menu.Trigger>
            <Portal>
              <Menu.Positioner>
                <Menu.Content bg="panel" borderWidth="1px" borderColor="line" boxShadow="float" borderRadius="10px">
                  {kinds.all.map((k) => (
                    <Menu.Item key={k.kind} value={k.kind} title={k.help} onClick={() => add(k.kind)}>
                      <DeclaredIcon name={k.icon} size={14} />
                      {k.title}
                    </Menu.Item>
                  ))}
                </Menu.Content>
              </Menu.Positioner>
            </Portal>
          </Menu.Root>
        )}
      </Flex>
      {items.map((item) => (
        <ItemCard
          key={item.id}
          owner={{ type: 'scene', item: item.id }}
          item={item}
          kind={kinds.get(item.kind)}
          colour={SKY}
          onSwitch={
            most > 1 && (least === 0 || items.length > 1)
              ? (on) => change('Switch', (old) => old.map((x) => (x.id === item.id ? { ...x, on } : x)))
              : undefined
          }
          onRemove={
            items.length > least
              ? () =>
                  change(`Remove ${kinds.get(item.kind).title.toLowerCase()}`, (old) =>
                    old.filter((x) => x.id !== item.id),
                  )
              : undefined
          }
        />
      ))}
    </Box>
  );
}
