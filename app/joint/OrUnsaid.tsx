import { Choice } from '../forms/Choice';

const UNSAID = 'unsaid';

/** One of a few named things, or null: nobody has said which. */
export function OrUnsaid<T extends string>({
  label,
  value,
  options,
  unsaid = 'Nobody has said',
  onChange,
}: {
  label: string;
  value: T | null;
  options: readonly (readonly [T, string])[];
  unsaid?: string;
  onChange: (value: T | null) => void;
}) {
  return (
    <Choice<T | typeof UNSAID>
      label={label}
      value={value ?? UNSAID}
      options={[[UNSAID, unsaid], ...options]}
      onChange={(to) => onChange(to === UNSAID ? null : to)}
    />
  );
}
