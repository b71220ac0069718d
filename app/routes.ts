import { index, layout, route } from '@react-router/dev/routes';
import type { RouteConfig } from '@react-router/dev/routes';

/** The one table of routes: the pages that are not stages, then a piece and its road. */
export default [
  layout('frame/Frame.tsx', [
    index('jobs/jobs.tsx'),
    route('jobs/:jobId', 'jobs/job.tsx'),
    route('jobs/:jobId/found', 'survey/found.tsx'),
    route('jobs/:jobId/references', 'survey/references.tsx'),
    route('jobs/:jobId/new-piece', 'jobs/newPiece.tsx'),
    route('shop', 'shop/shop.tsx'),
  ]),
  route('pieces/:pieceId', 'piece/piece.tsx', [
    index('piece/pieceStart.tsx'),
    route('survey', 'survey/survey.tsx'),
    route('card', 'card/card.tsx'),
    route('card/profiles', 'card/profiles.tsx'),
    route('card/measured', 'card/measured.tsx'),
    route('card/another', 'card/another.tsx'),
    route('card/beside/:otherId', 'card/beside.tsx'),
    route('blank', 'blank/blank.tsx'),
    route('sheet', 'sheet/sheet.tsx'),
    route('fit', 'fit/fit.tsx'),
    route('weld', 'weld/weld.tsx'),
  ]),
  route('pieces/:pieceId/documents/:kind', 'piece/documents.ts'),
  route('pieces/:pieceId/pattern/:file', 'sheet/pattern.ts'),
  route('pieces/:pieceId/strip/:profileId', 'sheet/strip.ts'),
  route('pieces/:pieceId/surveyed', 'piece/pieceSurveyed.ts'),
  route('pieces/:pieceId/folding', 'blank/folding.ts'),
  route('pieces/:pieceId/fits', 'fit/fits.ts'),
  route('pieces/:pieceId/welds', 'weld/welds.ts'),
  route('shop/springs', 'blank/springs.ts'),
  route('scale-frame.pdf', 'card/scaleFrame.ts'),
  route('jobs/:jobId/pictures', 'pictures/pictures.ts'),
  route('pictures/:pictureId', 'pictures/said.ts'),
  route('pictures/:pictureId/:size', 'pictures/picture.ts'),
  route('jobs/:jobId/measuring-sheet.pdf', 'survey/measuringSheet.ts'),
  route('jobs/:jobId/survey', 'survey/surveyed.ts'),
  route('take-in', 'jobs/takeInFile.ts'),
  route('jobs/:jobId/file', 'jobs/file.ts'),
  route('health', 'frame/health.ts'),
] satisfies RouteConfig;
