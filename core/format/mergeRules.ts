import type { Folding } from '../blank/fold/folding';
import type { Shop } from '../blank/shopSchema';
import type { CutDown } from '../cutdown/cutDown';
import type { Hollow, Part } from '../joint/structure';
import type { PictureSaid } from '../picture/marks';
import type { Shaping } from '../shape/shapingSchema';
import type { PieceSurvey } from '../survey/pieceSurvey';
import type { Finding } from '../survey/references';
import type { PieceFacts } from './job';
import type { MergeRules } from './merge';

/**
 * How each record merges where two changed it. Apart from the schemas, so that pages can merge
 * without loading their checks.
 */

/** A thickness and how it was chosen say one thing. */
export const PIECE_MERGE: MergeRules<PieceFacts> = { together: [['thicknessMm', 'thickness']] };

export const SHOP_MERGE: MergeRules<Shop> = {
  lists: {
    // Readings and sheets are put in, left out and taken off, not changed.
    strips: 'set',
    springs: 'set',
    radii: 'set',
    bites: 'set',
    beadTests: 'set',
    limitsSeen: 'set',
    paces: 'set',
    sheets: 'set',
    brakes: ['id'],
    edgeTools: ['id'],
    beadTools: ['id'],
  },
};

export const PIECE_SURVEY_MERGE: MergeRules<PieceSurvey> = {
  lists: {
    takes: 'set',
    mends: 'set',
    braces: 'set',
    layerCuts: ['layer', 'edge'],
    oldMetal: 'set',
    options: ['id'],
  },
};

/** Of what is surveyed of a job only findings have lists that grow; corners are one value. */
export const FINDING_MERGE: MergeRules<Finding> = { lists: { layers: 'set', looks: ['at'] } };

export const FOLDING_MERGE: MergeRules<Folding> = {
  lists: {
    byHand: 'set',
    leftOpen: ['fold'],
    turnedAfter: 'set',
    made: 'set',
    closed: 'set',
    drains: 'set',
  },
};

export const SHAPING_MERGE: MergeRules<Pick<Shaping, 'order' | 'own'>> = {
  lists: { own: ['key'] },
};

export const CUT_DOWN_MERGE: MergeRules<CutDown> = {
  lists: { readingsMm: 'set', faults: ['id'], works: ['id'] },
};

export const PART_MERGE: MergeRules<Part> = { lists: { readingsMm: 'set' } };
export const HOLLOW_MERGE: MergeRules<Hollow> = { lists: { bounds: 'set' } };

export const PICTURE_MERGE: MergeRules<PictureSaid> = { lists: { marks: ['id'] } };
