import { useEffect, useRef, useState } from 'react';
import { isTyping } from '../frame/keys';

/**
 * What a caliper types, which is a keyboard: digits, a sign, a point; one right after the other.
 */
const READING = /^[0-9.,+\-−]$/;
/** The next key of one reading comes within this; a hand that goes from stop to stop is slower. */
const BURST_MS = 150;

/**
 * Catches a reading that is typed while no field has the focus. With a field to go to, it goes
 * there; with none, it is kept from moving the page about, and what was typed is told (the result)
 * until the next one.
 */
export function useReadingKeys(field: () => HTMLInputElement | null): string | null {
  const [lost, setLost] = useState<string | null>(null);
  const find = useRef(field);
  useEffect(() => {
    find.current = field;
  });
  useEffect(() => {
    let typed = '';
    let last = -Infinity;
    let replaying = false;
    let first: ReturnType<typeof setTimeout> | undefined;
    const pressed = (event: KeyboardEvent) => {
      const { target, key } = event;
      if (replaying || event.ctrlKey || event.metaKey || event.altKey) return;
      if (isTyping(target)) return;
      const burst = performance.now() - last < BURST_MS && typed !== '';
      if (key === 'Enter' && burst) {
        event.preventDefault();
        event.stopImmediatePropagation();
        return;
      }
      if (!READING.test(key)) return;
      const input = find.current();
      if (input) {
        // The key itself then goes into the field, as the browser sends it to whatever has the
        // focus.
        event.stopImmediatePropagation();
        input.focus();
        return;
      }
      event.preventDefault();
      event.stopImmediatePropagation();
      clearTimeout(first);
      typed = burst ? typed + key : key;
      last = performance.now();
      if (typed.length > 1 || !/[0-9]/.test(key)) return setLost(typed);
      // One digit alone is a key to a stop of the road: it is let through once nothing follows it.
      first = setTimeout(() => {
        replaying = true;
        window.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
        replaying = false;
      }, BURST_MS);
    };
    window.addEventListener('keydown', pressed, { capture: true });
    // A digit that waits is let through even when the stop is left meanwhile.
    return () => window.removeEventListener('keydown', pressed, { capture: true });
  }, []);
  return lost;
}
