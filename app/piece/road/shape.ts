import { brokenIn } from '#core/shape/shapeOrder';
import { inOwnOrder, madeToOther, uncounted } from '#core/shape/shaping';
import type { RoadGiven, Stop } from './stop';
import { stop } from './stop';

export function shapeStop({ steps, shaping, folding, fit }: RoadGiven): Stop {
  const all = inOwnOrder(
    [...steps.map(({ key }) => ({ key })), ...shaping.own.map(({ key }) => ({ key }))],
    shaping.order,
  );
  const work = (key: string) => shaping.work[key];
  const done = all.filter(({ key }) => work(key)?.done).length;
  if (all.length === 0) return stop('ahead', '');
  const made = steps.filter(({ key }) => work(key)?.done);
  const other = made.filter(({ key, figures }) => madeToOther(work(key)!, figures)).length;
  const open = made.filter(({ key, counts }) => uncounted(work(key)!, counts?.wanted ?? null) > 0);
  if (other > 0)
    return stop(
      'overtaken',
      'Made by an older card',
      `${other === 1 ? 'One step was' : `${other} steps were`} done to other figures than the card has now.`,
    );
  if (done === all.length)
    return open.length === 0
      ? stop('done', 'Shaped', 'Every step is done, and counted where there is something to count.')
      : stop(
          'ahead',
          open.length === 1 ? '1 step not counted' : `${open.length} steps not counted`,
          'Done, but with fewer bites, passes or cuts than planned: count them, or say why in its note.',
        );
  if (done === 0 && fit)
    return stop(
      'overtaken',
      'Tried in place',
      'It was made and tried; nobody counted how it was shaped.',
    );
  const broken = shaping.order
    ? brokenIn(inOwnOrder(steps, shaping.order), folding.turnedAfter).length
    : 0;
  if (broken > 0)
    return stop('attention', 'Order to look at', 'The order of your own breaks a rule.');
  return stop(
    'ahead',
    done > 0 ? `${done} of ${all.length}` : all.length === 1 ? '1 step' : `${all.length} steps`,
  );
}
