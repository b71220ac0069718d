import type { Formed } from '#core/card/holeForm';
import type { Datum } from '#core/blank/datum';
import type { Place } from '#core/blank/markingOut';
import type { ScribeHole, ScribeLine } from '#core/blank/scribe';

/**
 * What is to be marked and from where, in words, with the figures apart so that they can be set
 * large: on screen and paper.
 */
export type Said = (string | { figure: string })[];
type Shown = (mm: number, digits?: number) => string;

export const SCRIBE_WORDS: Record<ScribeLine['line'], string> = {
  brake: 'Brake line',
  near: 'Near tangent',
  far: 'Far tangent',
};

export const plain = (said: Said): string =>
  said.map((part) => (typeof part === 'string' ? part : part.figure)).join('');

/**
 * What a datum line is called: its edge; or the line to scribe first, and the one that is squared
 * up at its end.
 */
export function lineName(datum: Datum, which: keyof Datum): string {
  const other = datum[which === 'long' ? 'square' : 'long'];
  if (datum[which].letter !== null) return datum[which].letter;
  if (other.letter !== null) return `a line square to ${other.letter}`;
  return which === 'long' ? 'the line scribed first' : 'the line square to it';
}

export const placeSaid = ({ alongMm, outMm }: Place, datum: Datum, bare: Shown): Said => [
  { figure: bare(alongMm, 2) },
  ` from ${lineName(datum, 'square')}, `,
  { figure: bare(outMm, 2) },
  ` from ${lineName(datum, 'long')}`,
];

/** From where a fold line is scribed. */
export function scribeSaid({ from }: ScribeLine, datum: Datum, bare: Shown): Said {
  if (from.kind === 'parallel')
    return [{ figure: bare(from.distanceMm, 2) }, ` from edge ${from.letter}`];
  if (from.kind === 'points')
    return [
      'from ',
      ...placeSaid(from.ends[0]!, datum, bare),
      ' to ',
      ...placeSaid(from.ends[1]!, datum, bare),
    ];
  return from.marks.flatMap((mark, i): Said => [
    i > 0 ? ' to ' : 'from ',
    { figure: bare(mark.alongMm, 2) },
    ` on ${mark.letter} from corner ${mark.next}/${mark.letter}`,
  ]);
}

/** From where a hole's centre is marked. */
export const holeSaid = ({ from, datum: at }: ScribeHole, datum: Datum, bare: Shown): Said =>
  from.length === 0
    ? placeSaid(at, datum, bare)
    : from.flatMap(({ letter, distanceMm }, i): Said => [
        ...(i > 0 ? [', '] : []),
        { figure: bare(distanceMm, 2) },
        ` from ${letter}`,
      ]);

/** How one begins: the two lines everything is measured from. */
export const beginSaid = ({ long, square }: Datum): string =>
  `${long.letter ? `Begin with edge ${long.letter}, straight along the sheet, ` : 'Scribe a straight line along the sheet '}and square up ${square.letter ? `edge ${square.letter}` : 'a line at its end'}. Places are measured from these two.`;

/**
 * Lines that are scribed: with the bar on the tangent, brake line and near tangent are one line.
 */
export const linesToScribe = (lines: readonly ScribeLine[], brakeLine: string): ScribeLine[] =>
  lines.filter((line) => line.line !== 'near' || brakeLine !== 'tangent');

/** How large a hole is: across, a slot as long by wide, a square by its side. */
export function holeSize({ diameterMm, form }: Formed, show: (mm: number) => string): string {
  if (!form) return show(diameterMm);
  return form.kind === 'slot'
    ? `${show(Math.max(form.longMm, diameterMm))} × ${show(diameterMm)}`
    : `square ${show(diameterMm)}`;
}
