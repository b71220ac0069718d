import { percent } from '../../drawing/percent';
import type { Limit } from '#core/metal/forming';
import type { PatternDoc } from '#core/card/pattern';
import type { Figure } from '#core/surface/mesh/figures';
import type { LaidPanel } from '#core/surface/panel/laidPanel';
import type { Zone } from '#core/surface/strain/strainMap';
import { letterAt } from '#core/card/outline';
import { nearest } from '#core/measure/segment';

/** Figures a panel may be made from, as fields: name, and what stands in it at first. */
export const FIGURES_OF: Record<Figure['kind'], { name: string; about: string; figure: Figure }> = {
  cap: {
    name: 'Cap',
    about: 'Part of a ball, by the width of its rim and its height over it.',
    figure: { kind: 'cap', widthMm: 300, heightMm: 30 },
  },
  barrel: {
    name: 'Barrel',
    about: 'Crowned both ways: the side of a fender, a door skin.',
    figure: { kind: 'barrel', alongMm: 1200, acrossMm: 450, lengthMm: 400, widthMm: 260 },
  },
  saddle: {
    name: 'Saddle',
    about: 'Crowned along and hollow across: where a fender runs into the body.',
    figure: { kind: 'saddle', alongMm: 900, acrossMm: 500, lengthMm: 360, widthMm: 240 },
  },
  ring: {
    name: 'Part of a ring',
    about: 'The corner of a wheel arch: a round carried about the wheel.',
    figure: { kind: 'ring', tubeMm: 60, ringMm: 350, arcDeg: 60, fromDeg: 0, toDeg: 90 },
  },
  cone: {
    name: 'Part of a cone',
    about: 'Curved one way only: it unrolls without being worked.',
    figure: { kind: 'cone', radiusMm: 220, topRadiusMm: 140, heightMm: 180, arcDeg: 110 },
  },
  'shrunk-edge': {
    name: 'Curved sheet, one edge shrunk',
    about: 'Rolled to a radius, then one long edge gathered so that it turns in.',
    figure: {
      kind: 'shrunk-edge',
      radiusMm: 400,
      lengthMm: 420,
      widthMm: 220,
      shrinkPct: 3,
      overMm: 110,
    },
  },
  blend: {
    name: 'One crown into another',
    about:
      'Radii both ways at one end that go over into those at the other. Empty is straight; below 0 is hollow.',
    figure: {
      kind: 'blend',
      lengthMm: 420,
      widthMm: 240,
      from: { alongMm: 700, acrossMm: 350 },
      to: { alongMm: null, acrossMm: 900 },
    },
  },
};

export const FIELD_WORDS: Record<string, string> = {
  widthMm: 'Width',
  heightMm: 'Height',
  alongMm: 'Radius along',
  acrossMm: 'Radius across',
  lengthMm: 'Length',
  tubeMm: 'Radius of the round',
  ringMm: 'Wheel to the middle of the round',
  arcDeg: 'How far about',
  fromDeg: 'Round begins at (0 is outermost)',
  toDeg: 'Round ends at (90 is the crest)',
  radiusMm: 'Radius at one end',
  topRadiusMm: 'Radius at the other end',
  shrinkPct: 'Edge shrunk by',
  overMm: 'Fading out over',
};

/** What a stretch-shrink balance is called. */
export function balanceWords(balance: number): string {
  if (balance < 0.02) return 'Raised: all of it stretched, the blank cut small';
  if (balance > 0.98) return 'Gathered: all of it shrunk, the blank cut large';
  if (Math.abs(balance - 0.5) < 0.02) return 'Both alike: the middle raised, the rim gathered';
  return balance < 0.5 ? 'More raised than gathered' : 'More gathered than raised';
}

export { percent };

/** What has to be done along each edge. */
export function edgeWords(
  laid: LaidPanel,
  letters: readonly string[],
  show: (mm: number) => string,
): { edge: number; letter: string; said: string; shrink: boolean | null }[] {
  return laid.outline.edges
    .map(({ flatMm, panelMm }, i) => {
      const change = panelMm - flatMm;
      const letter = letters[i] ?? letterAt(i);
      if (Math.abs(change) < 0.05)
        return { edge: i, letter, said: `keeps its length, ${show(flatMm)}`, shrink: null };
      return {
        edge: i,
        letter,
        said: `${change < 0 ? 'gather' : 'stretch'} ${show(Math.abs(change))} over ${show(flatMm)}`,
        shrink: change < 0,
      };
    })
    .sort((a, b) => a.letter.length - b.letter.length || a.letter.localeCompare(b.letter));
}

/** How large a place is, as one would show it with the hands. */
function sized(mm2: number): string {
  if (mm2 < 3000) return 'thumb-sized';
  if (mm2 < 14_000) return 'palm-sized';
  return mm2 < 60_000 ? 'as large as two hands' : 'larger than two hands';
}

/** What has to be done over an area, and where that is: inside, or at which edge. */
export function zoneWords(
  { way, share, flatMm2, changeMm2, atRim, most, middle }: Zone,
  laid: LaidPanel,
  letters: readonly string[],
  showArea: (mm2: number) => string,
): string {
  const { path, edges } = laid.outline;
  const off = edges.map(({ first, count }) =>
    Math.min(...path.slice(first, first + count).map((s) => nearest(s, middle).distance)),
  );
  const where = atRim ? `At ${letters[off.indexOf(Math.min(...off))] ?? 'the rim'}` : 'Inside';
  const by = `${percent(Math.abs(share))} ${way === 'stretch' ? 'more' : 'less'} area, ${percent(most)} where it is most`;
  return `${where}, ${sized(flatMm2)}: ${way === 'stretch' ? 'raise' : 'gather'}, ${by} (${changeMm2 > 0 ? '+' : '−'}${showArea(Math.abs(changeMm2))}).`;
}

export type Verdict = { good: boolean; said: string[] };

/** Whether a metal can do it in one piece at this balance. */
export function verdict(laid: LaidPanel, stretchTo: Limit, shrinkTo: Limit): Verdict {
  const said: string[] = [];
  if (laid.overlaps.length > 0)
    said.push('The blank would lie over itself: part the panel into two.');
  if (laid.stretch > stretchTo.strain)
    said.push(
      `It must be stretched by ${percent(laid.stretch)}; this metal takes ${percent(stretchTo.strain)}. Gather more, or part the panel.`,
    );
  if (laid.shrink > shrinkTo.strain)
    said.push(
      `It must be gathered by ${percent(laid.shrink)}; usual is up to ${percent(shrinkTo.strain)}. Raise more, notch the rim, or part the panel.`,
    );
  return { good: said.length === 0, said };
}

/** The letters of a card’s edges if it was laid flat from a panel with as many. */
export const lettersOf = (pattern: PatternDoc, count: number): string[] =>
  pattern.crown && pattern.edges.length === count ? pattern.edges.map((edge) => edge.letter) : [];
