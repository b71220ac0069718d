import { useEffect, useRef } from 'react';

/** What a key does; told whether Shift was held, for keys that have no upper case. */
export type KeyMap = Record<string, ((shift: boolean) => void) | undefined>;

/**
 * Whether a key belongs to what has the focus: a field being typed in, a list being stepped
 * through.
 */
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(input|textarea|select)$/i.test(target.tagName));

/** Keys that a focused button or an open list wants for itself. */
const OWN_OF_CONTROLS = /^(Enter|Arrow)/;
const onControl = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  target.closest('button, a, [role="combobox"], [role="listbox"], [role="dialog"]') !== null;

/**
 * Single-key shortcuts: `e`, `Shift+E`, `1`, `?`, `Escape`. They never fire while typing in a
 * field, nor with Ctrl, Alt or Meta held. `first` is asked before the others: for what is in hand
 * before what is picked, before the page.
 */
export function useKeys(map: KeyMap, { first = false } = {}): void {
  const current = useRef(map);
  useEffect(() => {
    current.current = map;
  });
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      if (
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        event.defaultPrevented ||
        isTyping(event.target)
      )
        return;
      if (OWN_OF_CONTROLS.test(event.key) && onControl(event.target)) return;
      const letter = /^[a-z]$/i.test(event.key);
      const name = letter
        ? `${event.shiftKey ? 'Shift+' : ''}${event.shiftKey ? event.key.toUpperCase() : event.key.toLowerCase()}`
        : event.key;
      const act = current.current[name];
      if (!act) return;
      event.preventDefault();
      act(event.shiftKey);
    };
    window.addEventListener('keydown', pressed, { capture: first });
    return () => window.removeEventListener('keydown', pressed, { capture: first });
  }, [first]);
}

/**
 * Escape leaves the field one is in, before it puts down what is in hand or picked. For the whole
 * application, once.
 */
export function useEscapeLeavesField(): void {
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      const field = event.target;
      if (
        event.key !== 'Escape' ||
        event.defaultPrevented ||
        !(field instanceof HTMLElement) ||
        !isTyping(field)
      )
        return;
      // After the field has put back what stood in it.
      setTimeout(() => field.blur());
    };
    window.addEventListener('keydown', pressed);
    return () => window.removeEventListener('keydown', pressed);
  }, []);
}

export const KEY_CARD: [string, string][] = [
  ['1 – 7', 'go to a stop on the road; with an edge in hand at Fit, a reading'],
  ['E  Shift+E', 'next and previous edge'],
  ['F  B', 'next fold, next bead'],
  ['← → ↑ ↓', 'move a corner, a hole or a place along an edge; farther with Shift'],
  ['C  L', 'a corner, a fold from the place in hand'],
  ['I  H  B  S', 'a place inside; a hole, a bead there; that face stays put'],
  ['D  Shift+D', 'from the drawing to what is said of it, and back'],
  ['U', 'millimetres or inches'],
  ['Z  Shift+Z', 'undo and redo what the stop shows'],
  ['Esc', 'leave a field, put down what is in hand, then what is picked'],
  ['?', 'this key card'],
];
