import { createContext, useContext } from 'react';
import type { Development } from '#core/blank/fold/developed';
import type { Folding } from '#core/blank/fold/folding';
import type { Shop } from '#core/blank/shopSchema';
import type { PatternDoc } from '#core/card/pattern';
import type { CutDown } from '#core/cutdown/cutDown';
import type { PieceFacts } from '#core/format/job';
import type { Structured } from '#core/joint/structure';
import type { Problem, Result } from '#core/measure/result';
import type { Metal } from '#core/metal/metals';
import type { ShapeStep } from '#core/shape/shapeStep';
import type { Shaping } from '#core/shape/shaping';
import type { PieceSurvey } from '#core/survey/pieceSurvey';
import type { SurveyWarning } from '#core/survey/verdict';
import type { PlanDoc } from '#core/weld/plan';
import type { Pick } from '../drawing/pick';
import type { Fit } from '../records/records.server';
import type { Picture } from '../records/pictures.server';
import type { Inspection, Weld } from '../records/records.server';
import type { BeyondWithRecords } from '../records/structure.server';
import type { Joined } from './road/joined';
import type { LoadedPage } from './loaded/openedPage';
import type { Road } from './road/road';
import type { Editor } from './documents/useDocument';
import type { Readings } from './readings/useReadings';

/** How the last step of a stop is undone, and what to say of it. */
export type StopUndo = { undo: () => string } | null;

/** What was written down of a piece: it grows while the page stands. */
export type Records = {
  fits: Fit[];
  welds: Weld[];
  inspections: Inspection[];
  pictures: Picture[];
  survey: PieceSurvey;
  folding: Folding;
  shaping: Shaping;
  cutDown: CutDown;
  /** The job's named parts, joints and hollows. */
  structure: Structured[];
  /** The pieces at the other ends of this one's joints. */
  beyond: BeyondWithRecords[];
  /** What is to be said of the survey; null where that could not be told. */
  surveyWarnings: SurveyWarning[] | null;
};

/** Everything a stage knows of the piece it shows. */
export type PieceView = Records & {
  id: string;
  /** The job it is of, by its id. */
  job: string;
  facts: PieceFacts;
  metal: Metal;
  shop: Shop;
  /** Inside radii that were read on this piece: its own blank does not go by them. */
  ownRadii: Shop['radii'];
  pattern: PatternDoc;
  patternEditor: Editor<PatternDoc>;
  plan: PlanDoc;
  planEditor: Editor<PlanDoc>;
  problems: Problem[];
  development: Result<{ development: Development }>;
  /** What a print of the blank would be known by; null without a blank. */
  digest: string | null;
  /** The working order as it is reckoned; empty without a blank. */
  steps: ShapeStep[];
  road: Road;
  /** The piece it was made from, and those made from it. */
  from: LoadedPage['from'];
  made: LoadedPage['made'];
  /** Trials that were taken back: they count for nothing, and stay to be seen. */
  takenBack: Fit[];
  /** Records that were written here and wait for the server, by their ids. */
  waits: ReadonlySet<string>;
  /** What its edges meet, and the card and plan it is tried and welded by. */
  joined: Joined;
  /** What an edge meets, in words; empty where nothing is said. */
  meets: (edge: string) => string;
  /** Takes over what the server answered to a new record. */
  took: (records: Partial<Records>) => void;
  stopUndo: StopUndo;
  /** A stop that keeps its own last steps (readings) says here how one is undone. */
  setUndo: (undo: StopUndo) => void;
};

export const PieceContext = createContext<PieceView | null>(null);

export function usePiece(): PieceView {
  const view = useContext(PieceContext);
  if (!view) throw new Error('usePiece outside a piece');
  return view;
}

/** Readings on their way: apart, so that sending one draws only where they are read. */
export const ReadingsContext = createContext<Readings | null>(null);

export function useReadingsHere(): Readings {
  const readings = useContext(ReadingsContext);
  if (!readings) throw new Error('useReadingsHere outside a piece');
  return readings;
}

/** What is picked: apart from the piece, so that picking draws only what shows it. */
export type Picked = { pick: Pick; setPick: (pick: Pick) => void };

export const PickContext = createContext<Picked>({ pick: null, setPick: () => {} });
export const usePick = (): Picked => useContext(PickContext);

/**
 * The card as it is under the hand. While something is dragged the piece, and all that is reckoned
 * of it, stands as it was (`usePiece`), and only the drawing follows the hand.
 */
export type InHand = { pattern: PatternDoc; setMoving: (moving: boolean) => void };

export const InHandContext = createContext<InHand | null>(null);

export function useInHand(): InHand {
  const inHand = useContext(InHandContext);
  if (!inHand) throw new Error('useInHand outside a piece');
  return inHand;
}
