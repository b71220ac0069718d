import type { ShouldRevalidateFunctionArgs } from 'react-router';

/**
 * For pages on which the query only says which part is open: what was loaded stands when only that
 * changes.
 */
export const unlessOnlyQuery = ({
  currentUrl,
  nextUrl,
  formMethod,
  defaultShouldRevalidate,
}: ShouldRevalidateFunctionArgs): boolean =>
  currentUrl.pathname === nextUrl.pathname && currentUrl.search !== nextUrl.search && !formMethod
    ? false
    : defaultShouldRevalidate;
