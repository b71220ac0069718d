import type { Development } from '../developed';
import type { Frame } from '../refold';
import type { Body } from './bodies';
import { cached } from './cached';
import { IDENTITY, closedTo, composed, inverse, waysBetween } from './foldTransforms';

/** Where the bodies of a piece lie while it is folded; folds that are made are bits of a number. */
export type BodyFrames = {
  /** Where a body lies as a face sees it, with the folds between them made that are in `made`. */
  seen: (face: number, body: number, made: number) => Frame;
  /** How many folds lie between a face and a body. */
  foldsBetween: (face: number, body: number) => number;
  /**
   * The folds that decide how one body lies to another: those between their faces, and of a bend its
   * own.
   */
  deciding: readonly (readonly number[])[];
  /** Of a bend its own fold, as bits; 0 of any other body. */
  ownFold: readonly number[];
};

/** The frames of bodies, each fold as far closed as `anglesDeg` says when it is made. */
export function bodyFrames(
  development: Development,
  bodies: readonly Body[],
  anglesDeg: readonly number[],
): BodyFrames {
  const ways = waysBetween(development);
  const onWay = ways.map((row) =>
    row.map((way) => way.reduce((sum, { fold }) => sum | (1 << fold), 0)),
  );
  const ownFold = bodies.map(({ fold }) => (fold === null ? 0 : 1 << fold));
  const closed = development.folds.map((_, fold) => closedTo(development, fold, anglesDeg[fold]!));
  const opened = closed.map(inverse);
  return {
    ownFold,
    deciding: bodies.map((a, i) =>
      bodies.map((b, j) => onWay[a.face]![b.face]! | ownFold[i]! | ownFold[j]!),
    ),
    foldsBetween: (face, body) => ways[face]![bodies[body]!.face]!.length,
    seen: cached((face, body, made) => {
      let frame: Frame = IDENTITY;
      for (const { fold, outward } of ways[face]![bodies[body]!.face]!)
        if (made & (1 << fold)) frame = composed(frame, (outward ? closed : opened)[fold]!);
      return composed(frame, bodies[body]!.on);
    }),
  };
}
