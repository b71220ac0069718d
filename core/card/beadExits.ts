import { nearestOnRun } from '../measure/run';
import { beadLine } from './beadPath';
import { edgeLength, segmentsOfEdge } from './outline';
import type { Bead, PatternDoc } from './pattern';

/**
 * Where an end of a bead runs out over the rim: the edge, and how far that place is along it from
 * its start and from its end, mm.
 */
export type BeadExit = {
  end: 'start' | 'end';
  edge: string;
  letter: string;
  startMm: number;
  endMm: number;
};

/** The places where a bead leaves the card, from its start to its end: none, one or two. */
export function exitsOf(doc: PatternDoc, bead: Bead): BeadExit[] {
  const line = beadLine(doc, bead);
  if (!line) return [];
  return (['start', 'end'] as const).flatMap((end, i): BeadExit[] => {
    if (!line.out[i]) return [];
    const p = end === 'start' ? line.run[0]!.a : line.run[line.run.length - 1]!.b;
    const on = doc.edges.flatMap((edge) => {
      const found = nearestOnRun(segmentsOfEdge(doc, edge), p);
      return found ? [{ edge, offMm: Math.abs(found.rightMm), alongMm: found.alongMm }] : [];
    });
    const [nearest] = on.sort((a, b) => a.offMm - b.offMm);
    if (!nearest) return [];
    const { edge, alongMm } = nearest;
    return [
      {
        end,
        edge: edge.id,
        letter: edge.letter,
        startMm: alongMm,
        endMm: edgeLength(doc, edge) - alongMm,
      },
    ];
  });
}

/**
 * Where two beads come to one gap, and how far they are apart there with the starts of one edge at
 * the ends of the other, mm.
 */
export type AtGap = { here: BeadExit; there: BeadExit; fromStartMm: number; fromEndMm: number };

/**
 * Of the places where two beads leave their cards the two that come nearest to each other when the
 * edges are laid along each other, as they are across a gap: both cards with their faces up their
 * edges run against each other. One carries on the other: where that can be, the end of the one is
 * held against the start of the other. Null where one leaves nowhere.
 */
export function atGap(here: readonly BeadExit[], there: readonly BeadExit[]): AtGap | null {
  const pairs = here.flatMap((one) =>
    there.map((other): AtGap => ({
      here: one,
      there: other,
      fromStartMm: one.startMm - other.endMm,
      fromEndMm: one.endMm - other.startMm,
    })),
  );
  const carriesOn = pairs.filter((pair) => pair.here.end !== pair.there.end);
  const off = ({ fromStartMm, fromEndMm }: AtGap) => Math.abs(fromStartMm) + Math.abs(fromEndMm);
  return (carriesOn.length > 0 ? carriesOn : pairs).reduce<AtGap | null>(
    (best, pair) => (best && off(best) <= off(pair) ? best : pair),
    null,
  );
}
