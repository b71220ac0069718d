import { useCallback, useEffect, useMemo, useRef } from 'react';
import { inHandOf, newJoint, newPart } from '#core/joint/joint';
import type { Joint, Part, StructureBody, Structured } from '#core/joint/structure';
import type { Post } from '../forms/usePost';
import { usePost } from '../forms/usePost';
import { newId } from '../frame/newId';
import type { Records } from '../piece/pieceContext';
import { usePiece } from '../piece/pieceContext';

export type Structure = {
  all: readonly Structured[];
  parts: Structured<Part>[];
  /** Joins edges to edges, or to parts by their ids. */
  joinAll: (pairs: readonly (readonly [Joint['first'], Joint['second']])[]) => void;
  /** Joins edges to parts by their names: one that is not there is made. */
  joinToParts: (named: readonly (readonly [Joint['first'], string])[]) => void;
  /** Changes some of what is said of a part, a joint or a hollow. */
  change: (id: string, mine: Partial<StructureBody>) => void;
  post: Post;
};

/**
 * The parts and joints of the job as the piece at hand sees them. What is said shows at once, is
 * sent in the order it was said, and waits here where the server does not answer.
 */
export function useStructure(): Structure {
  const { id: piece, job, structure, took } = usePiece();
  const post = usePost<Partial<Records>>(`/jobs/${job}/structure`, took);
  const { sendOrWait } = post;
  // As it is said to be: several things are said before the page is drawn again.
  const said = useRef(structure);
  useEffect(() => {
    said.current = structure;
  }, [structure]);
  const sending = useRef<Promise<unknown>>(Promise.resolve());
  const say = useCallback(
    (next: Structured[], body: object, what: string) => {
      said.current = next;
      took({ structure: next });
      sending.current = sending.current.then(() =>
        sendOrWait({ ...body, seenFrom: piece }, what, piece),
      );
    },
    [piece, sendOrWait, took],
  );
  const add = useCallback(
    (all: readonly Structured[]) => {
      const bodies = all.map(({ id, ...body }) => ({ id, body }));
      say([...said.current, ...all], { intent: 'new', all: bodies }, 'What an edge meets');
    },
    [say],
  );
  const change = useCallback(
    (id: string, mine: Partial<StructureBody>) => {
      const now = said.current.find((one) => one.id === id) as Record<string, unknown> | undefined;
      const since = Object.fromEntries(Object.keys(mine).map((key) => [key, now?.[key]]));
      const next = said.current.map((one) =>
        one.id === id ? ({ ...one, ...mine } as Structured) : one,
      );
      say(next, { intent: 'change', id, since, mine }, 'What is known of a joint');
    },
    [say],
  );
  return useMemo(
    () => ({
      all: structure,
      parts: inHandOf(structure, 'part'),
      joinAll: (pairs) =>
        add(pairs.map(([first, second]) => ({ ...newJoint(first, second), id: newId() }))),
      joinToParts: (named) => {
        const known = inHandOf(said.current, 'part');
        // Each part once, however many edges meet it.
        const made = new Map<string, Structured<Part>>();
        const joints = named.map(([first, name]) => {
          const fresh = made.get(name) ?? { ...newPart(name), id: newId() };
          const part = known.find((one) => one.name === name) ?? fresh;
          if (part === fresh) made.set(name, fresh);
          return { ...newJoint(first, { part: part.id }), id: newId() };
        });
        add([...made.values(), ...joints]);
      },
      change,
      post,
    }),
    [add, change, post, structure],
  );
}
