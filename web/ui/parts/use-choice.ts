import { useRef, type KeyboardEvent, type RefObject } from 'react';

interface Chooser<V extends string> {
  /** For the surrounding element, besides a label. */
  readonly group: {
    readonly ref: RefObject<HTMLDivElement | null>;
    readonly role: 'radiogroup';
    onKeyDown(event: KeyboardEvent): void;
  };
  /** For the button of a value. */
  option(value: V): {
    readonly type: 'button';
    readonly role: 'radio';
    readonly 'aria-checked': boolean;
    readonly tabIndex: 0 | -1;
    onClick(): void;
  };
}

/**
 * One of few things, in whatever dress: a radio group that is one stop of the Tab key, gone through
 * with the arrow keys (WAI-ARIA Authoring Practices, radio group).
 *
 * @example
 * const { group, option } = useChoice(['all', 'some'], value, setValue);
 * return <div {...group} aria-label="Which"><button {...option('all')}>All</button><button {...option('some')}>Some</button></div>;
 */
export function useChoice<V extends string>(values: readonly V[], value: V, onChange: (value: V) => void): Chooser<V> {
  const ref = useRef<HTMLDivElement>(null);
  const onKeyDown = (event: KeyboardEvent) => {
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
    const next =
      event.key === 'Home'
        ? 0
        : event.key === 'End'
          ? values.length - 1
          : step === undefined
            ? -1
            : (values.indexOf(value) + step + values.length) % values.length;
    if (next < 0) return;
    event.preventDefault();
    event.stopPropagation();
    onChange(values[next]);
    (ref.current?.querySelectorAll('[role="radio"]')[next] as HTMLElement | undefined)?.focus();
  };
  // If none is chosen, the first can be reached by Tab.
  const stop = values.includes(value) ? value : values[0];
  const option = (v: V) =>
    ({
      type: 'button',
      role: 'radio',
      'aria-checked': v === value,
      tabIndex: v === stop ? 0 : -1,
      onClick: () => onChange(v),
    }) as const;
  return { group: { ref, role: 'radiogroup', onKeyDown }, option };
}
