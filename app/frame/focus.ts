import type { RefObject } from 'react';
import { useEffect } from 'react';

/** What had the focus last, on this page or the one before it. */
let last: Element | null = null;

if (typeof document !== 'undefined')
  document.addEventListener('focusin', ({ target }) => {
    if (target instanceof Element) last = target;
  });

/**
 * What had the focus and is gone with it (a button that made something and went away); null where
 * the focus was not lost that way: nothing was ever touched, or somebody left a field.
 */
export const lostWith = (): Element | null =>
  document.activeElement === document.body && last !== null && !last.isConnected ? last : null;

export const BUTTONS = 'button, a[href], summary, [role="combobox"]';
const CONTROLS = `input, textarea, select, ${BUTTONS}`;

/** The first control within an element that can have the focus and is seen. */
export const firstControl = (within: Element, which = CONTROLS): HTMLElement | undefined =>
  [...within.querySelectorAll<HTMLElement>(which)].find(
    (one) =>
      one.tabIndex >= 0 &&
      !one.hasAttribute('disabled') &&
      one.getAttribute('aria-hidden') !== 'true' &&
      one.getClientRects().length > 0,
  );

/** A page that opens after what was touched has gone takes the focus to its first control. */
export function useFocusWhenLost(within: RefObject<Element | null>): void {
  useEffect(() => {
    if (lostWith() && within.current) firstControl(within.current)?.focus({ preventScroll: true });
  }, [within]);
}
