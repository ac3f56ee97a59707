'use client';

import { Box } from '@chakra-ui/react';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { PANES, pullPane, togglePane, useLayout, type Pane } from '../state/layout';

/** On which side of its pane an edge lies. */
type Side = 'left' | 'right' | 'top';

/** Width of the edge of a hidden pane, in pixels. */
export const AWAY = 12;

interface Props {
  readonly pane: Pane;
  readonly side: Side;
  readonly label: string;
  /** Height or width as shown, if it differs from the set one. */
  readonly shown?: number;
  /** Called instead of hiding it. */
  readonly onAway?: () => void;
}

/** The edge of a pane: drag it or use arrow keys; a double click or Enter hides or shows the pane. */
export function PaneEdge({ pane, side, label, shown, onAway }: Props) {
  const size = useLayout((s) => s[pane]);
  const drag = useRef<{ from: number; size: number } | null>(null);
  const upright = side !== 'top';
  const sign = side === 'right' ? 1 : -1;
  const now = shown ?? size;
  const pull = (to: number) => {
    if (onAway && to < PANES[pane].away) {
      drag.current = null;
      onAway();
    } else pullPane(pane, to);
  };
  const toggle = () => (onAway ? onAway() : togglePane(pane));
  const across = (e: PointerEvent) => (upright ? e.clientX : e.clientY);
  return (
    <Box
      role="separator"
      aria-orientation={upright ? 'vertical' : 'horizontal'}
      aria-label={label}
      aria-valuenow={now}
      aria-valuemin={0}
      aria-valuemax={PANES[pane].most}
      aria-valuetext={now === 0 ? 'put away' : `${Math.round(now)} pixels`}
      title={now === 0 ? 'Double-click to bring it back' : 'Drag; double-click to put it away'}
      tabIndex={0}
      position="absolute"
      zIndex="3"
      touchAction="none"
      cursor={upright ? 'col-resize' : 'row-resize'}
      {...(upright
        ? { top: 0, bottom: 0, w: '9px', [side]: now === 0 ? '0px' : '-5px' }
        : { left: 0, right: 0, h: '9px', top: now === 0 ? '0px' : '-5px' })}
      _after={{
        content: '""',
        position: 'absolute',
        borderRadius: 'full',
        bg: 'lineStrong',
        opacity: now === 0 ? 1 : 0,
        transition: 'opacity .12s',
        ...(upright
          ? { left: '3px', top: 'calc(50% - 22px)', w: '4px', h: '44px' }
          : { top: '3px', left: 'calc(50% - 22px)', h: '4px', w: '44px' }),
      }}
      _hover={{ _after: { opacity: 1 } }}
      _focusVisible={{ outline: 'none', _after: { opacity: 1, bg: 'sky' } }}
      onPointerDown={(e: PointerEvent) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        drag.current = { from: across(e), size: now };
      }}
      onPointerMove={(e: PointerEvent) =>
        drag.current && pull(drag.current.size + sign * (across(e) - drag.current.from))
      }
      onPointerUp={() => (drag.current = null)}
      onPointerCancel={() => (drag.current = null)}
      onDoubleClick={toggle}
      onKeyDown={(e: KeyboardEvent) => {
        const steps: Record<string, number> = upright
          ? { ArrowRight: 20, ArrowLeft: -20 }
          : { ArrowUp: -20, ArrowDown: 20 };
        const by = steps[e.key];
        if (!(e.key in steps) && e.key !== 'Enter') return;
        e.preventDefault();
        e.stopPropagation();
        if (e.key === 'Enter') toggle();
        // From hidden, the first step shows it at its minimum.
        else pull(now === 0 ? PANES[pane].least : now + sign * by);
      }}
    />
  );
}
