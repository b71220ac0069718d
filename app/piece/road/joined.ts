import type { Blank } from '#core/blank/blank';
import { edgeLength } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import type { PieceFacts } from '#core/format/job';
import type { Across } from '#core/joint/across';
import { acrossOf, fitWithAcross } from '#core/joint/across';
import type { HolesAt } from '#core/joint/holes';
import { holesAt } from '#core/joint/holes';
import type { Meeting } from '#core/joint/meetings';
import { joinedAs, meetingsOf, thinnerAt } from '#core/joint/meetings';
import type { Structured } from '#core/joint/structure';
import type { PlanDoc } from '#core/weld/plan';
import type { PlugCentres } from '#core/weld/plugs';
import { plugsOnBlank } from '#core/weld/plugs';
import type { Fit, Inspection, Weld } from '../../records/records.server';
import type { BeyondWithRecords } from '../../records/structure.server';

type Given = {
  id: string;
  facts: Pick<PieceFacts, 'name' | 'metal' | 'thicknessMm' | 'structural'>;
  pattern: PatternDoc;
  plan: PlanDoc;
  structure: readonly Structured[];
  beyond: readonly BeyondWithRecords[];
};

/** What was read and done of a joint on the page of the piece beyond it, as seen from this edge. */
export type EdgeAcross = Across<Fit, Weld, Inspection> & { meeting: Meeting };

/** What the edges of a piece meet, and the piece as its joints have it. */
export type Joined = {
  meetings: Map<string, Meeting[]>;
  /** The card and the plan by which it is tried and welded; it is cut by its own. */
  pattern: PatternDoc;
  plan: PlanDoc;
  /** Where the plug holes of an edge are: in this piece, or in what it meets. */
  holesAt: (edge: string) => HolesAt;
  /** The plug holes of its own blank. */
  plugsOn: (blank: Blank) => PlugCentres[];
  /** The thinner of the two sheets along an edge, mm. */
  thicknessAt: (edge: string) => number;
  /** Whether an edge is part of what holds the vehicle up. */
  structuralAt: (edge: string) => boolean;
  /** What was written down beyond each edge, where anything was. */
  across: Map<string, EdgeAcross[]>;
};

export function joinedOf({ id, facts, pattern, plan, structure, beyond }: Given): Joined {
  const { name, metal, thicknessMm, structural } = facts;
  const own = { id, name, metal, thicknessMm, archived: false, pattern, plan };
  const meetings = meetingsOf(own, structure, beyond);
  const across = new Map<string, EdgeAcross[]>();
  for (const edge of pattern.edges) {
    const found = (meetings.get(edge.id) ?? []).flatMap((meeting): EdgeAcross[] => {
      const records = beyond.find((piece) => piece.id === meeting.edge?.piece.id)?.records;
      if (!records) return [];
      const lengthMm = edgeLength(pattern, edge);
      const seen = acrossOf(meeting, records, { edge: edge.id, lengthMm, turned: pattern.turned });
      const any = seen.fit || seen.welds.length > 0 || seen.inspections.length > 0;
      return any ? [{ ...seen, meeting }] : [];
    });
    if (found.length > 0) across.set(edge.id, found);
  }
  const as = joinedAs({ pattern, plan }, meetings);
  const holes = (edge: string) => {
    const found = pattern.edges.find((one) => one.id === edge);
    return found ? holesAt(found, meetings.get(edge)) : 'here';
  };
  return {
    meetings,
    ...as,
    holesAt: holes,
    plugsOn: (blank) => plugsOnBlank(as.pattern, as.plan, thicknessMm, blank, holes),
    thicknessAt: (edge) => thinnerAt(meetings.get(edge), thicknessMm),
    structuralAt: (edge) =>
      structural || (meetings.get(edge) ?? []).some(({ joint }) => joint.structural),
    across,
  };
}

/** The records of a piece with those that were written down beyond its joints: for how it stands. */
export function withAcross(
  { across }: Pick<Joined, 'across'>,
  own: {
    fit: Fit | null;
    welds: readonly Weld[];
    inspections: readonly Inspection[];
    revision: number;
    digest: string | null;
  },
): { fit: Fit | null; welds: Weld[]; inspections: Inspection[] } {
  const all = [...across.values()].flat();
  return {
    fit: fitWithAcross<Fit>(own.fit, all, { revision: own.revision, digest: own.digest }),
    welds: [...own.welds, ...all.flatMap(({ welds }) => welds)],
    inspections: [...own.inspections, ...all.flatMap(({ inspections }) => inspections)],
  };
}
