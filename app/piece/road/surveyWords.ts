import type { Layer, LookKind, OptionKind } from '#core/survey/kinds';
import type { PieceSurvey } from '#core/survey/pieceSurvey';
import type { SurveyWarning } from '#core/survey/verdict';
import { listed } from '../../frame/words';

export const LAYER_WORDS: Record<Layer, string> = {
  outer: 'Outer skin',
  inner: 'Inner skin',
  structural: 'Structural member',
};
export const LOOK_WORDS: Record<LookKind, string> = {
  seen: 'Seen',
  probed: 'Probed with a spike',
  sanded: 'Sanded back',
  cut: 'Cut open',
};
export const OPTION_WORDS: Record<OptionKind, string> = {
  patch: 'Make a patch',
  panel: 'Make the whole panel',
  mend: 'Mend the old',
  buy: 'Buy it',
  donor: 'Cut it from a donor',
};

/** What the parts of a survey are called, where two pages differ about one. */
export const SURVEY_WORDS: { [K in keyof PieceSurvey]: string } = {
  takes: 'References it takes away',
  mends: 'Findings it mends',
  braces: 'Its braces',
  space: 'In the plane or in space',
  toleranceMm: 'How well to put back',
  layerCuts: 'Where layers are cut',
  cutOut: 'Cut out',
  oldMetal: 'Micrometer readings',
  options: 'Options',
  choice: 'Choice',
};

type Show = (mm: number) => string;
const lower = (layer: Layer) => LAYER_WORDS[layer].toLowerCase();

/**
 * What wants attention, in a sentence that says what to do. `letterOf`: the letter of an edge by
 * its id.
 */
export function surveyWarningSaid(
  warning: SurveyWarning,
  show: Show,
  letterOf: (edge: string) => string,
): string {
  switch (warning.code) {
    case 'put-back-poor':
      return warning.cut
        ? `${listed(warning.points)} went out with the old metal and cannot be put back as well as was asked: nothing read before the cut places ${warning.points.length === 1 ? 'it' : 'them'} well enough.`
        : `Do not cut yet: ${listed(warning.points)} could not be put back as well as is asked. Take the measures named here first.`;
    case 'not-a-plane':
      return 'These points do not lie in one plane: their tapes fit each other worse than they can be out. Reckon in space, or take the doubtful tape again.';
    case 'no-brace':
      return 'It holds the vehicle up and was cut out with no brace of its own in. Stop, support the shell, and have a licensed person look at it.';
    case 'not-braced-round':
      return 'It holds the vehicle up and was cut out before a round was read with the braces in: whether the shell moved in cutting cannot be told.';
    case 'one-line':
      return `${LAYER_WORDS[warning.layers[0]]} and ${lower(warning.layers[1])} are cut ${show(warning.apartMm)} from each other, measured from edge ${letterOf(warning.edge)}: one line of weakness. Stagger them.`;
    case 'not-compared':
      return `Where ${lower(warning.layers[0])} and ${lower(warning.layers[1])} are cut is measured from different edges: measure both from one, so that it shows how far apart they are.`;
    case 'both-sides-out':
      return `${warning.partner}, the same place as ${warning.point} on the other side, is out with “${warning.piece}”. With both sides out there is no pattern left: get that one back in first.`;
  }
}

/** The same in a word or two, for the road. */
export function surveyWarningShort(warning: SurveyWarning): string | null {
  switch (warning.code) {
    case 'put-back-poor':
      return warning.points.length === 1
        ? '1 reference to lose'
        : `${warning.points.length} references to lose`;
    case 'not-a-plane':
      return 'Tapes not in a plane';
    case 'no-brace':
      return 'Cut with no brace';
    case 'not-braced-round':
      return 'Not measured braced';
    case 'one-line':
      return 'Cuts in one line';
    case 'not-compared':
      return null;
    case 'both-sides-out':
      return 'Other side is out';
  }
}
