import { useCallback, useMemo, useState } from 'react';
import { emptyPattern } from '#core/card/emptyPattern';
import { keptToRules } from '#core/card/rule/cardRules';
import { readingsNow } from '#core/fit/readingsNow';
import { meetsWords } from '#core/joint/meetings';
import { metalById } from '#core/metal/metals';
import { emptyPlan } from '#core/weld/emptyPlan';
import { plugHoles } from '#core/weld/plugs';
import type { Pick } from '../drawing/pick';
import { usePost } from '../forms/usePost';
import type { LoadedPage as Loaded } from './loaded/openedPage';
import type { InHand, Picked, PieceView, Records, StopUndo } from './pieceContext';
import { joinedOf, withAcross } from './road/joined';
import { printDigest } from './loaded/printDigest';
import { reckoned } from './loaded/reckoned';
import { stepsOf } from './loaded/shapeSteps';
import { roadOf } from './road/road';
import { useDocument } from './documents/useDocument';
import type { Readings } from './readings/useReadings';
import { useReadings } from './readings/useReadings';
import { useWaitingHere, withWaiting } from './waitingHere';

const CARD_VERSION = emptyPattern().version;
const PLAN_VERSION = emptyPlan().version;

/**
 * What the stages know of a piece: its documents as they are being edited, and all that follows
 * from them.
 */
export function usePieceView(loaded: Loaded): {
  view: PieceView;
  picked: Picked;
  inHand: InHand;
  readings: Readings;
} {
  const { id, facts, shop, ownRadii } = loaded;
  const live = useDocument(id, 'card', loaded.card, CARD_VERSION, keptToRules);
  const [moving, setMoving] = useState(false);
  const [rested, setRested] = useState(live);
  if (!moving && rested !== live) setRested(live);
  // While the hand moves, what is reckoned rests: it would be out of date before it could be read.
  const patternEditor = moving ? rested : live;
  const inHand = useMemo(() => ({ pattern: live.doc, setMoving }), [live.doc]);
  const planEditor = useDocument(id, 'plan', loaded.plan, PLAN_VERSION);
  const pattern = patternEditor.doc;
  const plan = planEditor.doc;
  const metal = metalById(facts.metal);

  const [pick, setPick] = useState<Pick>(null);
  const picked = useMemo(() => ({ pick, setPick }), [pick]);
  const [stopUndo, setUndo] = useState<StopUndo>(null);

  // As loaded, and since then as the server answered to each new record.
  const [newer, setNewer] = useState<{ than: Loaded; records: Partial<Records> }>({
    than: loaded,
    records: {},
  });
  const took = useCallback(
    (records: Partial<Records>) =>
      setNewer((last) => ({
        than: loaded,
        records: { ...(last.than === loaded ? last.records : {}), ...records },
      })),
    [loaded],
  );
  const there = useMemo(
    () => ({ ...loaded.records, ...(newer.than === loaded ? newer.records : {}) }),
    [loaded, newer],
  );
  const { pictures, survey, folding, shaping, cutDown, surveyWarnings, structure, beyond } = there;
  const waiting = useWaitingHere(id);
  const fits = useMemo(() => withWaiting(there.fits, waiting.fits), [there.fits, waiting.fits]);
  const welds = useMemo(
    () => withWaiting(there.welds, waiting.welds),
    [there.welds, waiting.welds],
  );
  const inspections = useMemo(
    () => withWaiting(there.inspections, waiting.inspections),
    [there.inspections, waiting.inspections],
  );
  const readings = useReadings(there.fits, usePost(`/pieces/${id}/fits`, took));

  const { problems: found, development } = useMemo(
    () => reckoned(pattern, metal, facts.thicknessMm, shop),
    [pattern, metal, facts.thicknessMm, shop],
  );
  // A version that can't be read shows as an empty card; what is wrong with it comes first.
  const problems = useMemo(
    () => [...(loaded.card.broken ?? []), ...found],
    [loaded.card.broken, found],
  );
  const joined = useMemo(
    () => joinedOf({ id, facts, pattern, plan, structure, beyond }),
    [id, facts, pattern, plan, structure, beyond],
  );
  const meets = useCallback((edge: string) => meetsWords(joined.meetings.get(edge)), [joined]);
  const digest = useMemo(() => {
    if (!development.ok) return null;
    const blank = development.development;
    const plugs = plugHoles(joined.plugsOn(blank));
    return printDigest(blank, plugs, metal, facts.thicknessMm, shop);
  }, [development, joined, metal, facts.thicknessMm, shop]);
  // Trials that stand, their readings at their places on the card as it is now.
  const standing = useMemo(
    () =>
      fits
        .filter((fit) => !fit.withdrawn)
        .map((fit) =>
          fit.edges.every((edge) => edge.turned === pattern.turned)
            ? fit
            : { ...fit, edges: fit.edges.map((edge) => readingsNow(pattern, edge)) },
        ),
    [fits, pattern],
  );
  const takenBack = useMemo(() => fits.filter((fit) => fit.withdrawn), [fits]);
  const steps = useMemo(
    () =>
      stepsOf({
        ...{ pattern, development, metal, shop, folding },
        meets: (edge) => meets(edge) !== '',
        thicknessMm: facts.thicknessMm,
      }),
    [pattern, meets, development, metal, facts.thicknessMm, shop, folding],
  );
  const road = useMemo(
    () =>
      roadOf({
        kind: facts.kind,
        cutDown,
        steps,
        shaping,
        folding,
        structural: facts.structural,
        survey,
        surveyWarnings,
        pattern,
        changedThere: loaded.from?.changed ?? 0,
        joined,
        thicknessMm: facts.thicknessMm,
        digest,
        problems,
        development,
        revision: patternEditor.number,
        printed: loaded.printed,
        ...withAcross(joined, {
          fit: standing[standing.length - 1] ?? null,
          welds,
          inspections,
          revision: patternEditor.number,
          digest,
        }),
      }),
    [
      facts.kind,
      cutDown,
      steps,
      shaping,
      folding,
      survey,
      surveyWarnings,
      pattern,
      loaded.from,
      joined,
      facts.thicknessMm,
      facts.structural,
      digest,
      problems,
      development,
      patternEditor.number,
      loaded.printed,
      standing,
      welds,
      inspections,
    ],
  );

  const view = useMemo(
    (): PieceView => ({
      id,
      job: loaded.job.id,
      facts,
      metal,
      shop,
      ownRadii,
      pattern,
      patternEditor,
      plan,
      planEditor,
      problems,
      development,
      digest,
      steps,
      road,
      from: loaded.from,
      made: loaded.made,
      fits: standing,
      takenBack,
      welds,
      inspections,
      pictures,
      survey,
      folding,
      shaping,
      cutDown,
      structure,
      beyond,
      joined,
      meets,
      surveyWarnings,
      waits: waiting.ids,
      took,
      stopUndo,
      setUndo,
    }),
    [
      id,
      loaded.job.id,
      loaded.from,
      loaded.made,
      facts,
      metal,
      shop,
      ownRadii,
      pattern,
      patternEditor,
      plan,
      planEditor,
      problems,
      development,
      digest,
      steps,
      road,
      standing,
      takenBack,
      welds,
      inspections,
      pictures,
      survey,
      folding,
      shaping,
      cutDown,
      structure,
      beyond,
      joined,
      meets,
      surveyWarnings,
      waiting.ids,
      took,
      stopUndo,
    ],
  );
  return { view, picked, inHand, readings };
}
