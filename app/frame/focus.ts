import type { RefObject } from 'react';
import { useEffect } from 'react';

/** What had the focus last, on this page or the one before it. */
let last: Element | null = null;

if (typeof document !== 'undefined')
  document.addEventListener('focusin', ({ target }) => {
    if (target instanceof Element) last = target;
  });

/**
 * Whether the focus was lost because what had it is gone (a button that made something and went
 * away with it), not because nothing was ever touched or somebody left a field.
 */
export const isFocusLost = (): boolean =>
  document.activeElement === document.body && last !== null && !last.isConnected;

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
    if (isFocusLost() && within.current)
      firstControl(within.current)?.focus({ preventScroll: true });
  }, [within]);
}
