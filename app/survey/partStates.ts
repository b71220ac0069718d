import { growthToCutOpen } from '#core/survey/growth';
import { originalThickness } from '#core/survey/originalThickness';
import { weighOptions } from '#core/survey/options';
import { inHand } from '#core/survey/inHand';
import type { SurveyWarning } from '#core/survey/verdict';
import type { StopState } from '../frame/StopMark';
import type { TallyFigure } from '../frame/Tally';
import { formatDay } from '../frame/dates';
import { usePreferences } from '../frame/preferences';
import { usePiece } from '../piece/pieceContext';
import { OPTION_WORDS, surveyWarningShort } from '../piece/road/surveyWords';
import { moneySaid, optionsToWeigh } from './money';
import { outlinesOn } from './outlines';
import { usePieceSurvey } from './usePieceSurvey';
import { useSurvey } from './useSurvey';

/** The parts of the survey of a piece, in the order one goes through them. */
export const PARTS = [
  { id: 'found', label: 'What was found' },
  { id: 'references', label: 'References it takes away' },
  { id: 'cutting', label: 'Bracing and cutting out' },
  { id: 'sheet', label: 'What sheet' },
  { id: 'choice', label: 'Patch, panel, mend or buy' },
  { id: 'what', label: 'What it is' },
] as const;
export type PartId = (typeof PARTS)[number]['id'];

/** How a part stands, in a word; `wants`: it wants attention. */
export type PartState = { state: StopState; said: string; wants: boolean };

const OF_REFERENCES: readonly SurveyWarning['code'][] = [
  'put-back-poor',
  'not-a-plane',
  'both-sides-out',
];

const done = (said: string): PartState => ({ state: 'done', said, wants: false });
const ahead = (said: string): PartState => ({ state: 'ahead', said, wants: false });
const wants = (said: string): PartState => ({ state: 'attention', said, wants: true });

/** How each part of the survey of the piece at hand stands. */
export function usePartStates(): Record<PartId, PartState> {
  const { pictures, metal, facts, shop } = usePiece();
  const { draft, verdict } = usePieceSurvey();
  const { all, points } = useSurvey();
  const { showThin, dates, show } = usePreferences();
  const own = pictures.filter(({ owner, putAway }) => owner === 'piece' && !putAway).length;
  const findings = inHand(all, 'finding').filter(({ id }) => draft.mends.includes(id)).length;
  const counted = (n: number, one: string) => `${n} ${n === 1 ? one : `${one}s`}`;
  const warned = (verdict?.warnings ?? []).flatMap((warning) => {
    const short = surveyWarningShort(warning);
    return short ? [{ short, references: OF_REFERENCES.includes(warning.code) }] : [];
  });
  const ofReferences = warned.find(({ references }) => references);
  const ofCutting = warned.find(({ references }) => !references);
  const worst = Math.max(...(verdict?.points ?? []).map(({ uMm }) => uMm ?? Infinity));
  const old = originalThickness(draft.oldMetal);
  const chosen = draft.options.find(({ id }) => id === draft.choice?.option);
  const weighed = weighOptions(shop.hourRate, optionsToWeigh(draft.options));
  return {
    found:
      findings + own > 0
        ? done([counted(findings, 'finding'), counted(own, 'picture')].join(', '))
        : ahead('Nothing yet'),
    references:
      verdict === null
        ? wants('Could not be told')
        : ofReferences
          ? wants(ofReferences.short)
          : draft.takes.length > 0
            ? done(
                Number.isFinite(worst)
                  ? `${draft.takes.length} can be put back, ± ${show(worst)}`
                  : 'Reckoning …',
              )
            : ahead(points.length > 0 ? 'None said to go' : 'None on this vehicle yet'),
    cutting: ofCutting
      ? wants(ofCutting.short)
      : draft.cutOut
        ? done(
            `${draft.cutOut.backAt ? 'Back in' : 'Cut out'} ${formatDay(draft.cutOut.backAt ?? draft.cutOut.at, dates)}`,
          )
        : ahead('Not cut yet'),
    sheet: old?.told
      ? done(`The old was ${showThin(old.thicknessMm)}`)
      : ahead(old ? 'Not told yet: measure more places' : 'Old metal not measured'),
    choice: chosen
      ? done(chosen.name || OPTION_WORDS[chosen.of])
      : ahead(
          draft.options.length > 1 && weighed.ok
            ? `${draft.options.length} to choose from`
            : 'Not weighed yet',
        ),
    what: done(
      `${metal.name}, ${showThin(facts.thicknessMm)}${facts.structural ? ', structural' : ''}`,
    ),
  };
}

/** The few figures of a survey that one would chalk on the metal. */
export function useSurveyTally(): TallyFigure[] {
  const { shop, metal, facts } = usePiece();
  const { draft, verdict, pictures } = usePieceSurvey();
  const { all } = useSurvey();
  const { show, showThin } = usePreferences();
  const figures: TallyFigure[] = [
    {
      label: 'Sheet',
      value: showThin(facts.thicknessMm),
      working: { title: 'Sheet', lines: [metal.name], source: 'What it is' },
    },
  ];
  const taken = verdict?.points ?? [];
  if (taken.length > 0) {
    const worst = Math.max(...taken.map(({ uMm }) => uMm ?? Infinity));
    figures.push({
      label: `Put back, the worst of ${taken.length}`,
      value: Number.isFinite(worst) ? `± ${show(worst)}` : 'cannot be',
      alert: taken.some(({ good }) => !good),
      working: {
        title: 'How well what is cut away could be put back',
        lines: taken.map(({ point, uMm, ellipse }) =>
          uMm === null
            ? `${point.name}: not from what has been read`
            : `${point.name}: ± ${show(uMm, 2)}${ellipse ? ` one way, ± ${show(ellipse.bMm, 2)} across it` : ''}`,
        ),
        source:
          'Covariance of the tapes to points that stay, taken as known; one standard deviation',
      },
    });
  }
  const old = originalThickness(draft.oldMetal);
  if (old)
    figures.push({
      label: 'Old sheet',
      value: showThin(old.thicknessMm),
      working: {
        title: 'How thick the old sheet was',
        lines: [
          `mean of ${old.readings.filter((r) => r === 'sheet').length} readings of bare sound metal`,
          `± ${show(old.uMm, 3)}`,
        ],
        source: 'The largest group of readings within what one sheet and the micrometer differ by',
      },
    });
  const growth = growthToCutOpen(inHand(all, 'finding'), outlinesOn(pictures));
  if (growth)
    figures.push({
      label: 'Findings grow here',
      value: `${growth.times.toFixed(1)} times`,
      working: {
        title: 'From first sight to cut open',
        lines: [`by area, the geometric mean of ${growth.of}`],
        source: 'This job’s own findings',
      },
    });
  const weighed = weighOptions(shop.hourRate, optionsToWeigh(draft.options));
  const at = draft.options.findIndex(({ id }) => id === draft.choice?.option);
  if (weighed.ok && at >= 0)
    figures.push({
      label: 'The way chosen costs',
      value: moneySaid(weighed.options[at]!.p50, shop.currency),
      working: {
        title: 'As likely under as over',
        lines: [
          `one in ten under ${moneySaid(weighed.options[at]!.p10, shop.currency)}, one in ten over ${moneySaid(weighed.options[at]!.p90, shop.currency)}`,
        ],
        source: `Triangular from three guesses of the hours, at ${moneySaid(shop.hourRate, shop.currency)} an hour`,
      },
    });
  return figures;
}
