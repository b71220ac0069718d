import { AdapterDayjs } from '@mui/x-date-pickers/AdapterDayjs';
import { DateTimePicker } from '@mui/x-date-pickers/DateTimePicker';
import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider';
import dayjs from 'dayjs';
import { FIELD_FORMAT } from '../frame/dates';
import { usePreferences } from '../frame/preferences';
import { FIGURES } from '../frame/theme';

/** A field for a date and time, typed and shown as the shop writes them. */
export default function MomentField({
  label,
  at,
  onChange,
}: {
  label: string;
  at: string;
  onChange: (at: string) => void;
}) {
  const { dates } = usePreferences();
  return (
    <LocalizationProvider dateAdapter={AdapterDayjs}>
      <DateTimePicker
        label={label}
        value={dayjs(at)}
        format={FIELD_FORMAT[dates.style]}
        ampm={dates.style === 'month'}
        // What is half typed is not a moment yet; the last whole one stands until then.
        onChange={(value) => value?.isValid() && onChange(value.toISOString())}
        slotProps={{
          textField: {
            fullWidth: true,
            sx: {
              '& .MuiPickersInputBase-root': { bgcolor: 'var(--chalk)', minHeight: 44 },
              '& .MuiPickersInputBase-sectionsContainer': { py: 1.1, fontFamily: FIGURES },
              '& .MuiPickersOutlinedInput-notchedOutline': {
                borderColor: 'var(--rule)',
                borderWidth: 1.5,
                top: 0,
                '& legend': { display: 'none' },
              },
            },
          },
        }}
      />
    </LocalizationProvider>
  );
}
