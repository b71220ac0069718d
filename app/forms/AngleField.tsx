import { FigureField } from './FigureField';

type Props = {
  label: string;
  /** Null where there is none yet. */
  angleDeg: number | null;
  min: number;
  max: number;
  /** What to say of an angle out of range or of something that is none. */
  wrong: string;
  onChange: (angleDeg: number) => void;
  /** Called on Enter once the figure was taken. */
  onEnter?: () => void;
};

/** A field for an angle in degrees. */
export const AngleField = ({ angleDeg, ...given }: Props) => (
  <FigureField {...given} value={angleDeg} unit="°" />
);
