'use client';

import { Box, Flex, Heading, Menu } from '@chakra-ui/react';
import { lightUp } from '@maypole/core/looks/light-up';
import { takeLook } from '../looks/take-look';
import { sceneLook, withSceneLook } from '@maypole/core/looks/look';
import { switched } from '@maypole/core/piece/adding';
import type { Item } from '@maypole/core/piece/piece';
import { sceneList, type SceneList } from '@maypole/core/scene/index';
import { lightSetUps, type LightSetUp } from '@maypole/core/scene/set-ups';
import { Plus, Replace } from 'lucide-react';
import { PictureButton } from '../parts/buttons';
import { DeclaredIcon } from '../parts/icons';
import { KeptLooks } from '../looks/kept-looks';
import { useEditor } from '../state/store';
import { addSceneItem, duplicateSceneItem, editScene } from './edit-scene';
import { ItemCard } from './item-card';
import { MenuList } from '../parts/menu-list';

/** Applies a light set-up, oriented to the camera and scaled to what it frames. */
function lightBy(setUp: LightSetUp): void {
  const { frame, edit } = useEditor.getState();
  edit(setUp.title, (p) => lightUp(p, setUp, frame));
}

const SKY = 'var(--chakra-colors-sky)';

/** A list of the scene: cards of its items, and a menu to add more. */
export function SceneItems({ list }: { list: SceneList }) {
  const items = useEditor((s) => s.piece.scene[list]);
  const listKind = sceneList(list);
  const { title, kinds, least, most, ordered, keeps } = listKind;
  if (kinds.all.length === 0) return null;
  const change = (label: string, to: (old: readonly Item[]) => readonly Item[]) => editScene(list, label, to);
  /** Effects act in their order. */
  const move = (i: number, by: 1 | -1) =>
    change('Move', (old) => {
      const next = [...old];
      [next[i], next[i + by]] = [next[i + by], next[i]];
      return next;
    });
  /** A list of one replaces its item. */
  const replaces = most === 1;
  const add = (kind: string) => addSceneItem(list, kind);
  return (
    <Box mt="2" mb="3" as="section" aria-label={title}>
      <Flex align="center" mb="1" minH="24px">
        <Heading as="h3" fontSize="12.5px" fontWeight="600" color="muted" flex="1">
          {title}
        </Heading>
        {keeps && (
          <KeptLooks
            kind={keeps}
            now={(name) => sceneLook(name, keeps, useEditor.getState().piece)}
            onUse={(look, name) => takeLook(name, (p) => withSceneLook(p, keeps, look))}
          />
        )}
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
            <MenuList>
              {keeps === 'lights' && <SetUps />}
              {kinds.all.map((k) => (
                <Menu.Item key={k.kind} value={k.kind} title={k.help} onClick={() => add(k.kind)}>
                  <DeclaredIcon name={k.icon} size={14} />
                  {k.title}
                </Menu.Item>
              ))}
            </MenuList>
          </Menu.Root>
        )}
      </Flex>
      {items.map((item, i) => (
        <ItemCard
          key={item.id}
          owner={{ type: 'scene', item: item.id }}
          item={item}
          kind={kinds.get(item.kind)}
          colour={SKY}
          onMove={
            ordered && items.length > 1
              ? {
                  ...(i > 0 ? { up: () => move(i, -1) } : {}),
                  ...(i < items.length - 1 ? { down: () => move(i, 1) } : {}),
                }
              : undefined
          }
          onAim={kinds.get(item.kind).aims ? () => useEditor.setState({ pick: { light: item.id } }) : undefined}
          onSwitch={
            most > 1 && (least === 0 || items.length > 1)
              ? (on) => change('Switch', (old) => switched(old, item.id, on, listKind))
              : undefined
          }
          onCopy={
            most > 1 && items.length < most && !kinds.get(item.kind).one
              ? () => duplicateSceneItem(list, item.id)
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

/** Set-ups that replace all lights. */
function SetUps() {
  return (
    <Menu.ItemGroup>
      <Menu.ItemGroupLabel fontSize="11.5px" color="muted">
        In place of all lights
      </Menu.ItemGroupLabel>
      {lightSetUps.map((x) => (
        <Menu.Item key={x.id} value={`set-up ${x.id}`} title={x.help} onClick={() => lightBy(x)}>
          {x.title}
        </Menu.Item>
      ))}
      <Menu.Separator />
    </Menu.ItemGroup>
  );
}
