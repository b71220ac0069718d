import type { OpenCutDown } from '#core/cutdown/progress';
import { openOf } from '#core/cutdown/progress';
import { uncut } from '#core/cutdown/uncut';
import { alike } from '#core/format/merge';
import type { RoadGiven, Stop } from './stop';
import { stop } from './stop';

/** What is open at the stop, in words that say what to do. */
export function openSaid(open: OpenCutDown): string {
  if (open.kind === 'edges') return 'Its edges have no names yet.';
  if (open.kind === 'received')
    return 'Nobody has said yet whether it is kept: lay it on, and look before it is cut.';
  if (open.kind === 'sent-back') return 'It was sent back.';
  if (open.kind === 'readings') return 'Its metal was not read with a micrometer.';
  const one = open.count === 1;
  return open.kind === 'faults'
    ? `${open.count} ${one ? 'fault is' : 'faults are'} open.`
    : `${open.count} ${one ? 'thing is' : 'things are'} still to do.`;
}

export function cutDownStop({ kind, cutDown, pattern }: RoadGiven): Stop {
  const open = openOf(kind, cutDown, pattern.edges.length);
  const [first] = open;
  if (!first) return stop('done', 'To size');
  if (first.kind === 'sent-back')
    return stop('attention', 'Sent back', 'Choose another way, or receive the next one.');
  const why = open.map(openSaid);
  const wrong = open.find(({ kind: what }) => what === 'faults');
  if (wrong?.kind === 'faults' && first.kind !== 'edges')
    return stop('attention', wrong.count === 1 ? '1 fault' : `${wrong.count} faults`, ...why);
  if (first.kind === 'edges') return stop('ahead', 'No edges yet', ...why);
  return stop('ahead', alike(cutDown, uncut()) ? 'Not begun' : 'Begun', ...why);
}
