'use client';

import { Box, Flex, Text } from '@chakra-ui/react';
import type { Params } from '@maypole/core/declare/params';
import type { Item } from '@maypole/core/piece/piece';
import type { Owner } from '@maypole/core/piece/walk';
import { ArrowDown, ArrowUp, CopyPlus, Crosshair, Trash2 } from 'lucide-react';
import { SwitchField } from '../fields/switch-field';
import { ValuesPanel } from '../fields/values-panel';
import { PictureButton } from '../parts/buttons';
import { DeclaredIcon } from '../parts/icons';
import { useEditor } from '../state/store';

interface Props {
  readonly owner: Owner;
  readonly item: Item;
  readonly kind: { readonly title: string; readonly help: string; readonly icon: string; readonly params: Params };
  readonly colour: string;
  /** Aims a light by clicking where its highlight should fall. */
  readonly onAim?: () => void;
  /** Moves it before (−1) or after (1) its neighbour, if there is one. */
  readonly onMove?: { readonly up?: () => void; readonly down?: () => void };
  readonly onSwitch?: (on: boolean) => void;
  /** Adds another with the same values. */
  readonly onCopy?: () => void;
  readonly onRemove?: () => void;
}

/** A declared item as a card: title, switch, removal, and values. */
export function ItemCard({ owner, item, kind, colour, onAim, onMove, onSwitch, onCopy, onRemove }: Props) {
  return (
    <Box
      onPointerDownCapture={() => useEditor.setState({ held: item.id })}
      onFocusCapture={() => useEditor.setState({ held: item.id })}
      bg="raised"
      borderWidth="1px"
      borderColor="line"
      borderRadius="card"
      mb="2"
      data-testid={`item-${item.kind}`}
    >
      <Flex align="center" gap="2" px="2.5" minH="36px">
        <Box color={item.on ? 'ink' : 'muted'}>
          <DeclaredIcon name={kind.icon} size={15} />
        </Box>
        <Text fontWeight="600" fontSize="13px" flex="1" title={kind.help} color={item.on ? 'ink' : 'muted'} truncate>
          {kind.title}
        </Text>
        {onAim && item.on && (
          <PictureButton label="Aim by reflection: click where it is to glance" color="muted" onClick={onAim}>
            <Crosshair size={14} />
          </PictureButton>
        )}
        {onMove && (
          <>
            <PictureButton
              label={`${kind.title} earlier`}
              minW="24px"
              color="muted"
              disabled={!onMove.up}
              onClick={onMove.up}
            >
              <ArrowUp size={13} />
            </PictureButton>
            <PictureButton
              label={`${kind.title} later`}
              minW="24px"
              color="muted"
              disabled={!onMove.down}
              onClick={onMove.down}
            >
              <ArrowDown size={13} />
            </PictureButton>
          </>
        )}
        {onSwitch && <SwitchField label={`${kind.title} on`} value={item.on} onChange={onSwitch} />}
        {onCopy && (
          <PictureButton label={`Duplicate ${kind.title.toLowerCase()}`} color="muted" onClick={onCopy}>
            <CopyPlus size={14} />
          </PictureButton>
        )}
        {onRemove && (
          <PictureButton label={`Remove ${kind.title.toLowerCase()}`} color="muted" onClick={onRemove}>
            <Trash2 size={14} />
          </PictureButton>
        )}
      </Flex>
      {item.on && (
        <Box borderTopWidth="1px" borderColor="line" px="2.5" py="1.5">
          <ValuesPanel owner={owner} params={kind.params} values={item.values} colour={colour} />
        </Box>
      )}
    </Box>
  );
}
