import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';

type Props<T extends string> = {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onChange?: (value: T) => void;
  name?: string;
  help?: string;
};

/** One of a few named things. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
  name,
  help,
}: Props<T>) {
  return (
    <TextField
      select
      label={label}
      name={name}
      helperText={help}
      {...(onChange
        ? { value, onChange: (event) => onChange(event.target.value as T) }
        : { defaultValue: value })}
    >
      {options.map(([id, said]) => (
        <MenuItem key={id} value={id}>
          {said}
        </MenuItem>
      ))}
    </TextField>
  );
}
