import type { Part } from './structure';
import type { BodyOf, EndOf, HollowOf, PieceEndOf } from './structure';

/**
 * A body with its pieces named another way (by their id, by their place in a file); null where one
 * of them has no such name.
 */
export function withPieces<P, Q>(
  body: BodyOf<P> | Part,
  named: (piece: P) => Q | undefined,
): BodyOf<Q> | null {
  if (body.kind === 'part') return body;
  if (body.kind === 'hollow') {
    const bounds = body.bounds.flatMap((one): HollowOf<Q>['bounds'] => {
      if (!('piece' in one)) return [one];
      const piece = named(one.piece);
      return piece === undefined ? [] : [{ piece }];
    });
    return bounds.length < body.bounds.length ? null : { ...body, bounds };
  }
  const pieceEnd = ({ piece, ...rest }: PieceEndOf<P>): PieceEndOf<Q> | null => {
    const other = named(piece);
    return other === undefined ? null : { piece: other, ...rest };
  };
  const end = (one: EndOf<P>): EndOf<Q> | null => ('piece' in one ? pieceEnd(one) : one);
  const [first, second] = [pieceEnd(body.first), end(body.second)];
  return first && second ? { ...body, first, second } : null;
}
