import { useEffect, useRef } from 'react';

export type KeyMap = Record<string, (() => void) | undefined>;

/** Whether a key belongs to what has the focus: a field being typed in, a list being stepped through. */
const taken = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(input|textarea|select)$/i.test(target.tagName));

/**
 * Single-key shortcuts: `e`, `Shift+E`, `1`, `?`, `Escape`. They never fire while typing in a field, nor with Ctrl, Alt
 * or Meta held.
 */
export function useKeys(map: KeyMap): void {
  const current = useRef(map);
  useEffect(() => {
    current.current = map;
  });
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented || taken(event.target)) return;
      const letter = /^[a-z]$/i.test(event.key);
      const name = letter
        ? `${event.shiftKey ? 'Shift+' : ''}${event.shiftKey ? event.key.toUpperCase() : event.key.toLowerCase()}`
        : event.key;
      const act = current.current[name];
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', pressed);
    return () => window.removeEventListener('keydown', pressed);
  }, []);
}

export const KEY_CARD: [string, string][] = [
  ['1 – 7', 'go to a stop on the road'],
  ['E  Shift+E', 'next and previous edge'],
  ['F', 'next fold'],
  ['U', 'millimetres or inches'],
  ['Z  Shift+Z', 'undo and redo on the card'],
  ['Esc', 'put down what is picked'],
  ['?', 'this key card'],
];
