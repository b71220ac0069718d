import type { Hit } from '#core/blank/fold/order/inTheWay';
import type { Remedy } from '#core/blank/fold/order/remedies';
import type { OrderStep } from '#core/blank/fold/order/solve';
import { FINGER_GAP_MM } from '#core/machine/brake';
import type { Development } from '#core/blank/fold/developed';
import type { FoldRow } from '../folding/foldRows';
import { faceSaid } from './waterWords';

/** An order of folding in words: on the screen, and on the card for the bench. */

type Show = (mm: number) => string;

const HIT_WORDS: Record<Hit['of'], string> = {
  bar: 'something stands where the bar would be',
  beam: 'it runs into the beam over the bar',
  bed: 'what hangs down runs into the bed',
  apron: 'what is turned down runs into the apron',
  bench: 'what hangs down lands on the bench under the machine',
  piece: 'it runs into the piece itself',
  length: 'it is longer than the machine',
  thickness: 'the sheet is too thick for so long a fold',
  'way in': 'the bar does not open far enough to put it in',
  'way out': 'it hooks over the bar and cannot be taken out',
};

const deg = (angle: number) => `${Math.round(angle * 10) / 10}°`;

/** What hits, in words: what it runs into, and which face or turned edge it is that does. */
export function hitSaid({ of, face, edge }: Hit, development: Development): string {
  if (face === undefined) return HIT_WORDS[of];
  const turned = development.edges.find(({ id }) => id === edge);
  const who = turned ? `edge ${turned.letter}, turned over` : faceSaid(development, face);
  return `${HIT_WORDS[of]} (${who})`;
}

/** What is done in a row, in a few words. */
export function rowSaid({ by, fold, fromDeg, toDeg }: FoldRow): string {
  if (by === 'machine') return `Fold ${fold + 1} to ${deg(toDeg)}`;
  return fromDeg > 0
    ? `Close fold ${fold + 1} by hand, ${deg(fromDeg)} to ${deg(toDeg)}`
    : `Fold ${fold + 1} by hand to ${deg(toDeg)}`;
}

/**
 * How the piece is laid for a step, after the one before it; said to whoever stands before the
 * machine.
 */
export function lyingSaid(before: OrderStep | null, step: OrderStep): string {
  const over = (before ? before.faceUp : true) !== step.faceUp;
  return `Drawn side ${step.faceUp ? 'up' : 'down'}${over ? ' (turn it over, left to right)' : ''}, ${roundSaid(before, step, over)}.`;
}

function roundSaid(before: OrderStep | null, step: OrderStep, over: boolean): string {
  const anew = !before || over;
  const turn = Math.round((step.turnDeg - (anew ? 0 : before.turnDeg) + 360) % 360) % 360;
  const turned =
    turn === 180
      ? 'turned half round'
      : turn > 180
        ? `turned ${360 - turn}° to the right`
        : `turned ${turn}° to the left`;
  if (turn === 0) return anew ? 'as it is drawn' : 'as before';
  return anew ? `${turned} from how it is drawn` : turned;
}

export const heldSaid = ({ clamped }: OrderStep): string =>
  clamped === 'base'
    ? 'Hold the side of the face that stays put.'
    : 'Clamp the far side: here it is the face that otherwise stays put which swings.';

/** What stands up from the sheet in the machine, by its name and how high it stands, mm. */
export const pressedSaid = (
  pressed: readonly { name: string; heightMm: number }[],
  show: Show,
): string | null =>
  pressed.length === 0
    ? null
    : `In the machine: ${pressed.map(({ name, heightMm }) => `${name}, ${show(heightMm)} high`).join('; ')}. Pack the sheet beside it as thick, or leave it free between fingers.`;

/** The fingers from the left, with the gaps that are left for walls; null for a bar all along. */
export function fingersSaid(
  { fingersMm, fingersAtMm }: OrderStep,
  gapMm: number | undefined,
  show: Show,
): string | null {
  if (!fingersMm || !fingersAtMm) return null;
  const inOrder = fingersMm
    .map((width, i) => ({ width, at: fingersAtMm[i]! }))
    .sort((a, b) => a.at - b.at);
  const said = inOrder.map(({ width, at }, i) => {
    const next = inOrder[i + 1];
    const gap = next ? next.at - at - width : 0;
    if (!next) return show(width);
    return gap > (gapMm ?? FINGER_GAP_MM) + 0.5
      ? `${show(width)} · gap of ${show(gap)} · `
      : `${show(width)} + `;
  });
  return `Fingers from the left: ${said.join('')}.`;
}

export function handlingSaid({
  turnings,
  fingerChanges,
}: {
  turnings: number;
  fingerChanges: number;
}): string {
  const times = (n: number, what: string) =>
    n === 0 ? `no ${what}` : n === 1 ? `one ${what}` : `${n} ${what}s`;
  const said = `${times(turnings, 'turning')} of the piece, ${times(fingerChanges, 'change')} of fingers.`;
  return said.charAt(0).toUpperCase() + said.slice(1);
}

/** Remedies of which the same can be said, together. */
export type RemedyGroup = { said: string; remedies: Remedy[] };
type OfFold = Extract<Remedy, { fold: number }>;

export function remedyGroups(
  remedies: readonly Remedy[],
  show: Show,
  letterOf: (edge: string) => string,
): RemedyGroup[] {
  const ofEdges = remedies.flatMap((one) => (one.kind === 'turn-after' ? [one] : []));
  const ofFolds = remedies.flatMap((one) => ('fold' in one ? [one] : []));
  const late = ofEdges.map(({ edges }) =>
    edges.length === 1
      ? `edge ${letterOf(edges[0]!)}`
      : `edges ${listed(edges.map(letterOf), 'and')}`,
  );
  const turned =
    ofEdges.length === 0
      ? []
      : [{ said: `Turn ${listed(late, 'or')} over when the folds are made.`, remedies: ofEdges }];
  const uncovered = remedies.flatMap((one): RemedyGroup[] =>
    one.kind === 'uncover'
      ? [
          {
            said: `Let fingers end up to ${show(one.gapMm)} short of walls, of the line’s ends and of each other: what is not pressed there bends less sharply.`,
            remedies: [one],
          },
        ]
      : [],
  );
  return [...turned, ...uncovered, ...foldGroups(ofFolds, show)];
}

const listed = (names: readonly string[], last: 'and' | 'or'): string =>
  names.length < 2
    ? (names[0] ?? '')
    : `${names.slice(0, -1).join(', ')} ${last} ${names[names.length - 1]!}`;

function foldGroups(remedies: readonly OfFold[], show: Show): RemedyGroup[] {
  const groups = new Map<string, OfFold[]>();
  for (const remedy of remedies) {
    const key = remedySaid(remedy, show)('');
    groups.set(key, [...(groups.get(key) ?? []), remedy]);
  }
  return [...groups.values()].map((all) => {
    const names = all.map((one) =>
      one.kind === 'over-a-bar' && one.also !== undefined
        ? `${one.fold + 1} and ${one.also + 1}`
        : String(one.fold + 1),
    );
    const pairs = all.some((one) => one.kind === 'over-a-bar' && one.also !== undefined);
    const folds = `${pairs ? 'folds' : 'fold'} ${listed(names, 'or')}`;
    return { said: remedySaid(all[0]!, show)(folds), remedies: all };
  });
}

const remedySaid = (remedy: OfFold, show: Show): ((folds: string) => string) => {
  switch (remedy.kind) {
    case 'leave-open':
      return (folds) =>
        `Leave ${folds} at ${remedy.deg}° on the machine; close it over a bar when the others are made.`;
    case 'over-a-bar':
      return (folds) => `Make ${folds} over a bar by hand, when the others are made.`;
    case 'part':
      return (folds) => `Cut the piece apart along ${folds}, fold both parts, and weld them.`;
    case 'shorten':
      return (folds) => `Make the flange of ${folds} ${show(remedy.byMm)} shorter.`;
  }
};
