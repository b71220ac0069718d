import { createStore, del, get, set } from 'idb-keyval';
import type { UseStore } from 'idb-keyval';
import { useEffect, useState } from 'react';
import type { PatternDoc } from '#core/card/pattern';
import type { Picture } from '../../records/pictures.server';
import type { Underlay } from './traced';

let opened: UseStore | null = null;
const store = () => (opened ??= createStore('patrone-underlays', 'underlays'));

/** Keeps the picture that a card was traced from, in this browser, behind the card of its piece. */
export const keepUnderlay = (piece: string, underlay: Underlay): Promise<void> =>
  set(piece, underlay, store()).catch(() => undefined);

/** Takes it away again. */
const dropUnderlay = (piece: string): Promise<void> => del(piece, store()).catch(() => undefined);

export type Shown = Omit<Underlay, 'picture'> & { url: string };

/**
 * The picture behind a card, to be drawn: by its name among those of the piece, or while it is on
 * its way as this browser keeps it; null where there is none.
 */
export function useUnderlay(
  piece: string,
  underlay: PatternDoc['underlay'],
  pictures: readonly Picture[],
): [Shown | null, () => void] {
  const [kept, setShown] = useState<Shown | null>(null);
  const there =
    underlay && pictures.find(({ name, putAway }) => name === underlay.picture && putAway === null);
  const shown = underlay && there ? { ...underlay, url: `/pictures/${there.id}/whole` } : kept;
  useEffect(() => {
    let url: string | null = null;
    let here = true;
    void get<Underlay>(piece, store())
      .then((found) => {
        if (!found || !here) return;
        url = URL.createObjectURL(found.picture);
        const { picture: _picture, ...where } = found;
        setShown({ ...where, url });
      })
      // No store in this browser: then there is none.
      .catch(() => undefined);
    return () => {
      here = false;
      if (url) URL.revokeObjectURL(url);
    };
  }, [piece]);
  return [
    shown,
    () => {
      setShown(null);
      void dropUnderlay(piece);
    },
  ];
}
