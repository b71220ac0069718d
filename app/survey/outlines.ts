import { polygonArea } from '#core/measure/path';
import type { OutlineArea } from '#core/survey/growth';
import type { Picture } from '../records/pictures.server';

/** The areas of lines drawn on these pictures, by the picture's digest and the line's id. */
export const outlinesOn =
  (pictures: readonly Pick<Picture, 'digest' | 'marks'>[]): OutlineArea =>
  (outline) => {
    const mark = pictures
      .filter(({ digest }) => digest === outline.picture)
      .flatMap(({ marks }) => marks)
      .find(({ id }) => id === outline.mark);
    return mark?.kind === 'line' && mark.points.length > 2
      ? Math.abs(polygonArea(mark.points))
      : null;
  };

/** The lines that are drawn on pictures, to be chosen from as outlines. */
export const linesOn = (
  pictures: readonly Pick<Picture, 'digest' | 'marks' | 'name' | 'caption'>[],
) =>
  pictures.flatMap(({ digest, marks, name, caption }) =>
    marks.flatMap((mark, i) =>
      mark.kind === 'line'
        ? [
            {
              picture: digest,
              mark: mark.id,
              called: `${mark.name || `line ${i + 1}`} on ${caption || name}`,
            },
          ]
        : [],
    ),
  );
