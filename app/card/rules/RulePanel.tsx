import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import type { CardRule, PatternDoc } from '#core/card/pattern';
import { offNow, ruledCard } from '#core/card/rule/cardRules';
import { partsOf } from '#core/card/rule/dependents';
import { nearest, segmentLength } from '#core/measure/segment';
import { LengthField } from '../../forms/LengthField';
import { usePreferences } from '../../frame/preferences';
import { usePiece } from '../../piece/pieceContext';
import { newId } from '../../frame/newId';
import { offSaid, partName, ruleSaid, straightOf } from './ruleWords';
import type { Doing } from '../hand/useHand';

/**
 * Parts gathered by touch, and what they could be meant to be: how far they are from it, what would
 * move, and done.
 */
export function RulePanel({ parts, doing }: { parts: readonly string[]; doing: Doing }) {
  const { pattern } = usePiece();
  const [mm, setMm] = useState<number | null>(null);
  const rules = rulesFor(pattern, parts, mm);
  const measured = measuredOf(pattern, parts);
  return (
    <>
      <Box>
        <Typography variant="h2">Rule parts</Typography>
        <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
          Touch sides, folds, corners or holes on the drawing; touch again to let one go. Then say
          what they are meant to be.
        </Typography>
      </Box>
      <Typography role="status">
        {parts.length === 0
          ? 'Nothing gathered yet.'
          : parts.map((id) => partName(pattern, id)).join(', ')}
      </Typography>
      {measured && (
        <LengthField
          label={measured.label}
          mm={mm ?? measured.mm}
          min={0.1}
          digits={2}
          onChange={(next) => setMm(next)}
        />
      )}
      {rules.map((rule) => (
        <Choosing key={rule.kind} pattern={pattern} rule={rule} onDone={() => doing.take(null)} />
      ))}
      {parts.length > 0 && rules.length === 0 && (
        <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
          Straight sides and folds, or corners and holes, say something to each other; a side by
          itself can be given its length. For parts alike on both sides of a line, gather them in
          pairs, one after the other.
        </Typography>
      )}
      <Button variant="outlined" onClick={() => doing.take(null)}>
        Put them down
      </Button>
    </>
  );
}

function Choosing({
  pattern,
  rule,
  onDone,
}: {
  pattern: PatternDoc;
  rule: CardRule;
  onDone: () => void;
}) {
  const { patternEditor } = usePiece();
  const { show } = usePreferences();
  const found = useMemo(
    () => ruledCard({ ...pattern, rules: [...pattern.rules, rule] }),
    [pattern, rule],
  );
  const [off] = offNow(pattern, [rule]);
  const against = found.ok
    ? []
    : pattern.rules.filter(({ id }) => found.problems.some(({ about }) => about?.includes(id)));
  return (
    <Box sx={{ borderLeft: '3px solid var(--layout)', pl: 1.5 }}>
      <Typography sx={{ fontWeight: 600 }}>{ruleSaid(pattern, rule, show)}</Typography>
      <Typography variant="body2" sx={{ color: 'var(--pencil)' }}>
        {off ? `As measured ${offSaid(rule, off, show)}. ` : ''}
        {found.ok
          ? `Nothing moves by more than ${show(found.movedMm)}.`
          : against.length > 0
            ? `That goes against: ${against.map((one) => ruleSaid(pattern, one, show)).join('; ')}. Take one of them off first.`
            : 'That cannot be made of them.'}
      </Typography>
      {found.ok && (
        <Button
          variant="outlined"
          size="small"
          sx={{ mt: 0.5 }}
          onClick={() => {
            patternEditor.edit(found.doc);
            onDone();
          }}
        >
          Rule it
        </Button>
      )}
    </Box>
  );
}

/** What gathered parts could be meant to be. */
function rulesFor(pattern: PatternDoc, parts: readonly string[], mm: number | null): CardRule[] {
  const sides = parts.filter((id) => straightOf(pattern, id));
  const corners = pattern.sides.map(({ from }) => from).filter((id) => parts.includes(id));
  const holes = parts.filter((id) => pattern.holes.some((hole) => hole.id === id));
  if (sides.length + corners.length + holes.length < parts.length) return [];
  const id = newId();
  const figure = mm ?? measuredOf(pattern, parts)?.mm ?? null;
  const [a, b] = sides;
  if (sides.length === 1 && parts.length === 1 && figure)
    return [{ id, kind: 'length', sides: [a!], mm: figure }];
  if (sides.length === parts.length && a && b) {
    const all: CardRule[] = [{ id, kind: 'parallel', sides }];
    if (sides.length === 2) {
      all.push({ id, kind: 'square', sides: [a, b] });
      if (figure) all.push({ id, kind: 'width', sides: [a, b], mm: figure });
    }
    all.push({ id, kind: 'straight', sides }, { id, kind: 'equal-length', sides });
    const likely = offNow(pattern, all);
    const long = Math.max(...sides.map((side) => segmentLength(straightOf(pattern, side)!)));
    // Far from parallel, or far out of line, nobody means that; and what is on need not be put on.
    return all.filter(
      (rule, i) =>
        (likely[i]?.offDeg ?? 0) < 30 &&
        (rule.kind !== 'straight' || (likely[i]?.offMm ?? 0) < long / 5) &&
        !pattern.rules.some(
          (on) =>
            on.kind === rule.kind &&
            on.kind !== 'width' &&
            sides.every((side) => partsOf(on).includes(side)),
        ),
    );
  }
  if (sides.length > 0) return [];
  return placesRules(pattern, parts, corners, holes, id);
}

/**
 * What gathered corners and holes could be meant to be. Pairs for symmetry are as they were
 * gathered, one after the other.
 */
function placesRules(
  pattern: PatternDoc,
  parts: readonly string[],
  corners: string[],
  holes: string[],
  id: string,
): CardRule[] {
  const all: CardRule[] = [];
  const places = [...parts];
  if (corners.length === parts.length && corners.length >= 3)
    all.push({ id, kind: 'arc', corners: inOrder(pattern, corners) });
  if (holes.length === parts.length) {
    if (holes.length >= 3) all.push({ id, kind: 'pitch', holes: alongRow(pattern, holes) });
    if (holes.length >= 3) all.push({ id, kind: 'circle', holes: roundCircle(pattern, holes) });
    const [a, b, c, d] = roundCircle(pattern, holes);
    if (holes.length === 4) all.push({ id, kind: 'rectangle', holes: [a!, b!, c!, d!] });
    if (holes.length >= 2) all.push({ id, kind: 'same-size', holes });
  }
  if (parts.length >= 3) all.push({ id, kind: 'in-line', places });
  if (parts.length >= 2) all.push({ id, kind: 'level', places });
  if (parts.length >= 4 && parts.length % 2 === 0) all.push({ id, kind: 'symmetric', places });
  const off = offNow(pattern, all);
  const reach = reachOf(pattern, parts);
  // Far from it, nobody means that; what is on need not be put on.
  return all.filter(
    ({ kind }, i) =>
      (kind === 'same-size' || (off[i]?.offMm ?? Infinity) < reach / 5) &&
      !pattern.rules.some(
        (on) => on.kind === kind && parts.every((part) => partsOf(on).includes(part)),
      ),
  );
}

/** How far the parts reach, mm. */
function reachOf(pattern: PatternDoc, parts: readonly string[]): number {
  const at = [...pattern.corners, ...pattern.holes].filter(({ id }) => parts.includes(id));
  const span = (of: 'x' | 'y') =>
    Math.max(...at.map((p) => p[of])) - Math.min(...at.map((p) => p[of]));
  return Math.max(span('x'), span('y'), 1);
}

/** Holes in the order in which they go round their middle. */
function roundCircle(pattern: PatternDoc, ids: readonly string[]): string[] {
  const at = pattern.holes.filter(({ id }) => ids.includes(id));
  const mean = (of: 'x' | 'y') => at.reduce((sum, p) => sum + p[of], 0) / at.length;
  const [cx, cy] = [mean('x'), mean('y')];
  return at
    .sort((a, b) => Math.atan2(a.y - cy, a.x - cx) - Math.atan2(b.y - cy, b.x - cx))
    .map(({ id }) => id);
}

/**
 * The figure that can be said of what is gathered, as it was measured: a side's length, or how far
 * apart two are.
 */
function measuredOf(
  pattern: PatternDoc,
  parts: readonly string[],
): { label: string; mm: number } | null {
  const sides = parts.flatMap((id) => straightOf(pattern, id) ?? []);
  if (sides.length !== parts.length) return null;
  const [a, b] = sides;
  if (sides.length === 1) return { label: 'Length', mm: segmentLength(a!) };
  if (sides.length !== 2) return null;
  const middle: [number, number] = [(b!.a[0] + b!.b[0]) / 2, (b!.a[1] + b!.b[1]) / 2];
  return { label: 'Apart', mm: nearest(a!, middle).distance };
}

/** Corners in a row as they come round the outline, begun so that they follow each other. */
function inOrder(pattern: PatternDoc, corners: readonly string[]): string[] {
  const all = pattern.sides.map(({ from }) => from);
  const n = all.length;
  const has = new Set(corners);
  // Begin after the widest gap.
  const start = all.findIndex((id, i) => has.has(id) && !has.has(all[(i + n - 1) % n]!));
  return Array.from({ length: n }, (_, i) => all[(start + i + n) % n]!).filter((id) => has.has(id));
}

/** Holes in the order in which they stand along their row. */
function alongRow(pattern: PatternDoc, ids: readonly string[]): string[] {
  const holes = pattern.holes.filter(({ id }) => ids.includes(id));
  const far = (a: (typeof holes)[number], b: (typeof holes)[number]) =>
    Math.hypot(a.x - b.x, a.y - b.y);
  const first = holes[0]!;
  const end = holes.reduce((most, one) => (far(one, first) > far(most, first) ? one : most));
  return [...holes].sort((a, b) => far(a, end) - far(b, end)).map(({ id }) => id);
}
