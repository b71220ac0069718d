import { seenFrom } from '#core/card/link/linked';
import type { PatternDoc } from '#core/card/pattern';
import { piecesBeyond } from '#core/joint/joint';
import { cutDownOf } from '../../records/cutDown.server';
import { foldingOf } from '../../records/folding.server';
import { shapingOf } from '../../records/shaping.server';
import { pieceSurveyOf } from '../../records/pieceSurvey.server';
import { factsOf } from '../../records/pieces.server';
import { beyondOf } from '../../records/structure.server';
import { shopSettings } from '../../records/shop.server';
import type { Viewer } from '../../records/viewer.server';
import { wholePiece } from '../../records/wholePiece.server';
import { verdictOf } from './verdictKept.server';

/** All that a piece's page stands on; null where there is no such piece. */
export async function loadPiece(viewer: Viewer, id: string) {
  // Before anything is read: what is saved from now on may be in it or not.
  const asOf = Date.now();
  const [whole, settings] = await Promise.all([wholePiece(viewer, id), shopSettings(viewer)]);
  if (!whole) return null;
  // A piece is cut by what was known before: radii read on itself are for the next one.
  const [ownRadii, radii] = parted(settings.radii, ({ on }) => on?.piece === id);
  const shop = { ...settings, radii };
  const { piece, job, structure, card, plan, records, pictures, printed, from, made } = whole;
  const beyond = await beyondOf(viewer, piecesBeyond(structure, id));
  return {
    id: piece.id,
    /** How often it had been touched when it was read. */
    touched: piece.touched,
    archived: piece.archived !== null,
    job,
    facts: factsOf(piece),
    card: { ...card, asOf },
    plan: { ...plan, asOf },
    shop,
    /** Inside radii that were read on this piece. */
    ownRadii,
    records: {
      ...records,
      pictures,
      survey: pieceSurveyOf(piece),
      folding: foldingOf(piece),
      shaping: shapingOf(piece),
      cutDown: cutDownOf(piece),
      /** The job's parts, joints and hollows, and the pieces that this one meets. */
      structure,
      beyond,
    },
    printed,
    /**
     * The piece it was made from: how, why, and how much has changed there that it could take over.
     */
    from: from && {
      id: from.id,
      name: from.name,
      as: piece.cameAs ?? 'again',
      why: piece.cameWhy,
      shaping: from.shaping,
      changed: changedSince(from.card.doc, card.doc),
    },
    made: made.map(({ id, name, cameAs, cameWhy }) => ({
      id,
      name,
      as: cameAs ?? 'again',
      why: cameWhy,
    })),
  };
}

const parted = <T>(all: readonly T[], isFirst: (one: T) => boolean): [T[], T[]] => [
  all.filter(isFirst),
  all.filter((one) => !isFirst(one)),
];

const counted = new WeakMap<PatternDoc, { of: PatternDoc; count: number | null }>();
/**
 * How many parts of a card were changed since another took them over; null where that one was begun
 * anew.
 */
function changedSince(first: PatternDoc, made: PatternDoc): number | null {
  const known = counted.get(made);
  if (known?.of === first) return known.count;
  const seen = seenFrom('made', { first, made });
  const count = seen.ok
    ? seen.differences.filter(({ there, both }) => there.length + both.length > 0).length
    : null;
  counted.set(made, { of: first, count });
  return count;
}

export type Loaded = NonNullable<Awaited<ReturnType<typeof loadPiece>>>;

/**
 * The same with what is to be said of its survey, for the page. Its documents go as text that is
 * written once for each version: to walk through a panel's map of work for everybody who looks
 * would be most of the server's day.
 */
export async function loadPage(viewer: Viewer, id: string) {
  const loaded = await loadPiece(viewer, id);
  if (!loaded) return null;
  const { job, facts, shop, touched, records, card, plan } = loaded;
  const verdict = await verdictOf(viewer, {
    id,
    job: job.id,
    structural: facts.structural,
    survey: records.survey,
    layersApartMm: shop.layersApartMm,
    touched,
  });
  return {
    ...loaded,
    card: { ...card, doc: textOf(card.doc) },
    plan: { ...plan, doc: textOf(plan.doc) },
    records: { ...records, surveyWarnings: verdict?.warnings ?? null },
  };
}
export type SentPage = NonNullable<Awaited<ReturnType<typeof loadPage>>>;

const texts = new WeakMap<object, string>();
function textOf(doc: object): string {
  const known = texts.get(doc) ?? JSON.stringify(doc);
  texts.set(doc, known);
  return known;
}
