import type { Option } from '#core/survey/options';
import type { PieceOption } from '#core/survey/pieceSurvey';

/** Money without pence: guesses are not that good. */
export const moneySaid = (amount: number, currency: string): string =>
  `${currency}${currency ? '\u202f' : ''}${Math.round(amount).toLocaleString('en-GB')}`;

/** Options as they are weighed: by their ids. */
export const optionsToWeigh = (options: readonly PieceOption[]): Option[] =>
  options.map(({ id, hours, material, price }) => ({ name: id, hours, material, price }));

/** Hours as one says them. */
export const hoursSaid = (hours: number): string => `${Number(hours.toFixed(1))} h`;
