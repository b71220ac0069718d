import type { NetKey } from '#core/survey/roundNetwork';
import type { NetView } from '#core/survey/references';
import type { View } from './NetworkPicture';
import { useSurvey } from './useSurvey';

/**
 * How a net is looked at, as somebody has turned it; null where nobody has. Kept with the survey,
 * for every page and phone.
 */
export function useNetView(key: NetKey): { view: View | null; setView: (view: View) => void } {
  const { all, add, change } = useSurvey();
  const id = `view-${key}`;
  const kept = all.find((one): one is typeof one & NetView => one.id === id && one.kind === 'view');
  const view = kept ? { turns: kept.turns, mirrored: kept.mirrored } : null;
  const setView = (next: View) =>
    void (kept
      ? change(id, view!, next)
      : add({ kind: 'view', name: key, ...next, putAway: false }, id));
  return { view, setView };
}
