import { edgeDistances } from '#core/card/link/edgeDistances';
import type { Atom } from '#core/card/link/atoms';
import type { Difference } from '#core/card/link/differences';
import { edgeLength } from '#core/card/outline';
import type { PatternDoc } from '#core/card/pattern';
import { JOINT_WORDS } from '../../frame/words';
import { ruleSaid } from '../rules/ruleWords';

type Show = (mm: number) => string;
type Pair = { here: PatternDoc; there: PatternDoc };

/**
 * A part that differs as one calls it, and how it is here and there. Longer figures than these are
 * told apart, mm.
 */
const TOLD_MM = 0.005;

export function differenceSaid(
  { part, there, here, both }: Difference,
  pair: Pair,
  show: Show,
): { name: string; how: string } {
  const atoms = [...there, ...here, ...both];
  switch (part.of) {
    case 'outline':
      return { name: 'Outline', how: outlineSaid(pair) };
    case 'edge':
      return edgeSaid(part.id, atoms, pair, show);
    case 'letters':
      return {
        name: 'Letters',
        how: `here ${lettersOf(pair.here)}, there ${lettersOf(pair.there)}`,
      };
    case 'base':
      return { name: 'Face that stays put', how: 'another one' };
    case 'fold':
      return foldSaid(part.id, pair);
    case 'hole':
      return holeSaid(part.id, pair, show);
    case 'tuck':
      return listSaid('Tuck or slit', pair.here.tucks, pair.there.tucks, part.id);
    case 'mark':
      return listSaid('Scribe line', pair.here.marks, pair.there.marks, part.id);
    case 'bead':
      return listSaid('Bead', pair.here.beads, pair.there.beads, part.id);
    case 'profile':
      return {
        ...listSaid('Profile', pair.here.profiles, pair.there.profiles, part.id),
        name: profileName(part.id, pair),
      };
    case 'rule': {
      const mine = pair.here.rules.find(({ id }) => id === part.id);
      const theirs = pair.there.rules.find(({ id }) => id === part.id);
      const said = mine
        ? ruleSaid(pair.here, mine, show)
        : theirs
          ? ruleSaid(pair.there, theirs, show)
          : '';
      return { name: said, how: listSaid('', pair.here.rules, pair.there.rules, part.id).how };
    }
  }
}

/** Which has it, where only one does. */
function listSaid(
  name: string,
  here: readonly { id: string }[],
  there: readonly { id: string }[],
  id: string,
) {
  const [mine, theirs] = [here, there].map((list) => list.findIndex((one) => one.id === id)) as [
    number,
    number,
  ];
  const number = `${name} ${(mine >= 0 ? mine : theirs) + 1}`;
  return {
    name: number,
    how: mine < 0 ? 'only there' : theirs < 0 ? 'only here' : 'unlike each other',
  };
}

const profileName = (id: string, { here, there }: Pair): string =>
  `Profile “${[...here.profiles, ...there.profiles].find((one) => one.id === id)?.name ?? ''}”`;

const lettersOf = (doc: PatternDoc): string => doc.edges.map(({ letter }) => letter).join(' ');

function outlineSaid({ here, there }: Pair): string {
  const counts = (doc: PatternDoc) =>
    `${doc.corners.length} corners in ${doc.edges.length === 1 ? 'one edge' : `${doc.edges.length} edges`}`;
  const [mine, theirs] = [counts(here), counts(there)];
  return mine === theirs ? 'other corners or edges' : `here ${mine}, there ${theirs}`;
}

function edgeSaid(id: string, atoms: readonly Atom[], { here, there }: Pair, show: Show) {
  const mine = here.edges.find((edge) => edge.id === id)!;
  const theirs = there.edges.find((edge) => edge.id === id);
  const said: string[] = [];
  if (theirs && atoms.some(({ of }) => of === 'joint')) {
    const [a, b] = [JOINT_WORDS[mine.joint.kind], JOINT_WORDS[theirs.joint.kind]];
    const sameJoint = JSON.stringify(mine.joint) === JSON.stringify(theirs.joint);
    said.push(
      sameJoint
        ? 'its flange'
        : a === b
          ? `its ${a.toLowerCase()}`
          : `here ${a.toLowerCase()}, there ${b.toLowerCase()}`,
    );
  }
  if (theirs && atoms.some(({ of }) => of !== 'joint')) {
    const [a, b] = [edgeLength(here, mine), edgeLength(there, theirs)];
    if (show(a) !== show(b)) said.push(`here ${show(a)} long, there ${show(b)}`);
    else {
      const [apart] = edgeDistances({ ...here, edges: [mine] }, { ...there, edges: [theirs] });
      said.push(`lies ${show(Math.abs(apart?.mm ?? 0))} off at most`);
    }
  }
  return { name: `Edge ${mine.letter}`, how: said.join('; ') };
}

function foldSaid(id: string, { here, there }: Pair) {
  const said = listSaid('Fold', here.folds, there.folds, id);
  const [mine, theirs] = [here, there].map((doc) => doc.folds.find((fold) => fold.id === id));
  if (!mine || !theirs) return said;
  if (mine.angleDeg !== theirs.angleDeg)
    return { ...said, how: `here ${mine.angleDeg}°, there ${theirs.angleDeg}°` };
  return {
    ...said,
    how: mine.toward !== theirs.toward ? 'the other way' : 'laid or made otherwise',
  };
}

function holeSaid(id: string, { here, there }: Pair, show: Show) {
  const said = listSaid('Hole', here.holes, there.holes, id);
  const [mine, theirs] = [here, there].map((doc) => doc.holes.find((hole) => hole.id === id));
  if (!mine || !theirs) return said;
  const how: string[] = [];
  if (Math.abs(mine.diameterMm - theirs.diameterMm) > TOLD_MM)
    how.push(`here Ø ${show(mine.diameterMm)}, there Ø ${show(theirs.diameterMm)}`);
  const apart = Math.hypot(mine.x - theirs.x, mine.y - theirs.y);
  if (apart > TOLD_MM) how.push(`${show(apart)} elsewhere`);
  return { ...said, how: how.join('; ') || 'unlike each other' };
}
