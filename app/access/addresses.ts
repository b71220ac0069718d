import type { Params } from 'react-router';
import { STOPS } from '../frame/stops';

/**
 * Who may ask for an address: anybody; whoever is signed in (`own`: how they sign in); whoever may
 * look at the job it belongs to; whoever works in the shop; who runs it. Each may what stands before.
 */
export type Asker = 'anybody' | 'own' | 'looks' | 'works' | 'runs';

/**
 * The least who reads at an address and who writes there; `instead`: the page that whoever looks is
 * shown in its place. Whoever may not read is not told that it is there; whoever reads and may not
 * write is told so.
 */
export type Access = {
  reads: Asker;
  writes: 'anybody' | 'own' | 'works' | 'runs';
  instead?: (params: Params) => string;
};

const anybody: Access = { reads: 'anybody', writes: 'anybody' };
const own: Access = { reads: 'own', writes: 'own' };
/** What belongs to a job: read by whoever may look at that, written by whoever works in the shop. */
const ofJob: Access = { reads: 'looks', writes: 'works' };
const works: Access = { reads: 'works', writes: 'works' };
const runs: Access = { reads: 'runs', writes: 'runs' };
/** Where one works on a piece or measures a job: whoever looks is shown what came of it instead. */
const workedAt: Access = { ...ofJob, instead: ({ pieceId }) => `/pieces/${pieceId}/record` };
const measuredAt: Access = { ...ofJob, instead: ({ jobId }) => `/jobs/${jobId}` };

/** An address under the one it stands in, the file of its route, and who may ask for it. */
export type Address = { path: string; file: string; access: Access };
const at = (path: string, file: string, access: Access): Address => ({ path, file, access });

/** Pages in the frame: those that are not of a piece. */
export const FRAMED: readonly Address[] = [
  at('', 'jobs/jobs.tsx', ofJob),
  at('jobs/:jobId', 'jobs/job.tsx', ofJob),
  at('jobs/:jobId/found', 'survey/found.tsx', ofJob),
  at('jobs/:jobId/references', 'survey/references.tsx', measuredAt),
  at('jobs/:jobId/new-piece', 'jobs/newPiece.tsx', works),
  at('shop', 'shop/shop.tsx', { reads: 'works', writes: 'runs' }),
  at('shop/learnt', 'shop/learnt.tsx', works),
  at('people', 'people/people.tsx', runs),
  at('you', 'people/you.tsx', own),
];

/** The address that the pages of a piece stand in. */
export const OF_PIECE = 'pieces/:pieceId';
/** Pages of a piece: its stops, what belongs to its card, and what came of it. */
export const PIECE_PAGES: readonly Address[] = [
  at('', 'piece/pieceStart.tsx', workedAt),
  ...STOPS.map(({ id }) => at(id, `${id}/${id}.tsx`, workedAt)),
  at('card/profiles', 'card/profiles/profiles.tsx', workedAt),
  at('card/measured', 'card/photograph/measured.tsx', workedAt),
  at('card/crown', 'card/crown/crown.tsx', workedAt),
  at('card/another', 'card/linked/copyPiece.tsx', workedAt),
  at('card/beside/:otherId', 'card/linked/comparePieces.tsx', workedAt),
  at('card/over', 'card/linked/overlayCards.tsx', workedAt),
  at('record', 'record/record.tsx', ofJob),
];

/** What is no page in the frame: documents, records, files, and how one comes in. */
export const OTHERS: readonly Address[] = [
  at('pieces/:pieceId/documents/:kind', 'piece/documents/documents.ts', ofJob),
  at('pieces/:pieceId/pattern/:file', 'sheet/pattern.ts', ofJob),
  at('pieces/:pieceId/strip/:profileId', 'sheet/checkingStripFile.ts', ofJob),
  at('pieces/:pieceId/surveyed', 'piece/pieceSurveyed.ts', ofJob),
  at('pieces/:pieceId/bench-card.pdf', 'blank/benchCard.ts', ofJob),
  at('pieces/:pieceId/beads-beside', 'piece/beadsBeside.ts', ofJob),
  at('pieces/:pieceId/other-part', 'card/crown/otherPart.ts', ofJob),
  at('pieces/:pieceId/cut-down', 'cutdown/cutting.ts', ofJob),
  at('pieces/:pieceId/folding', 'blank/folding.ts', ofJob),
  at('pieces/:pieceId/shaping', 'shape/shaping.ts', ofJob),
  at('pieces/:pieceId/fits', 'fit/fits.ts', ofJob),
  at('pieces/:pieceId/welds', 'weld/welds.ts', ofJob),
  at('shop/readings', 'shop/readings.ts', works),
  at('shop/readings.csv', 'shop/readingsFile.ts', works),
  at('scale-frame.pdf', 'card/photograph/scaleFrame.ts', works),
  at('jobs/:jobId/pictures', 'pictures/pictures.ts', ofJob),
  at('pictures/:pictureId', 'pictures/said.ts', ofJob),
  at('pictures/:pictureId/:size', 'pictures/picture.ts', ofJob),
  at('jobs/:jobId/measuring-sheet.pdf', 'survey/measuringSheet.ts', ofJob),
  at('jobs/:jobId/survey', 'survey/surveyed.ts', ofJob),
  at('jobs/:jobId/structure', 'joint/structured.ts', ofJob),
  at('jobs/:jobId/edges', 'joint/edges.ts', ofJob),
  at('take-in', 'jobs/takeInFile.ts', works),
  at('jobs/:jobId/file', 'jobs/file.ts', ofJob),
  at('first', 'people/first.tsx', anybody),
  at('sign-in', 'people/signIn.tsx', anybody),
  at('passkey', 'people/passkey.ts', anybody),
  at('sign-out', 'people/signOut.ts', own),
  at('join/:code', 'people/join.tsx', anybody),
  at('trust', 'people/trust.tsx', anybody),
  at('trust/shop.crt', 'people/certificate.ts', anybody),
  at('who', 'people/signedIn.ts', works),
  at('health', 'frame/health.ts', anybody),
];

const pattern = (...parts: string[]): string => `/${parts.filter(Boolean).join('/')}`;
const BY_PATTERN: ReadonlyMap<string, Access> = new Map([
  ...[...FRAMED, ...OTHERS].map(({ path, access }) => [pattern(path), access] as const),
  ...PIECE_PAGES.map(({ path, access }) => [pattern(OF_PIECE, path), access] as const),
]);

/**
 * Who may ask for what the router has matched, by its pattern; what is nowhere declared is for who
 * works in the shop.
 */
export const accessTo = (matched: string): Access =>
  BY_PATTERN.get(pattern(matched.replace(/^\//, ''))) ?? works;
