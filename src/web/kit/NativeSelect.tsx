import { TextField } from '@mui/material';
import type { RefCallback } from 'react';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly options: readonly { readonly value: string; readonly label: string }[];
  readonly onChange: (value: string) => void;
  /** Takes the list, so that the focus comes here where something is wrong. */
  readonly fieldRef?: RefCallback<HTMLElement>;
  readonly error?: string | undefined;
  readonly wanted?: boolean;
}

/** One of a longer list, in the platform's own list box: quick by keyboard and by touch. */
export function NativeSelect({ label, value, options, onChange, fieldRef, error, wanted = false }: Props) {
  return (
    <TextField
      select
      label={label}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      {...(fieldRef ? { inputRef: fieldRef } : {})}
      error={error !== undefined}
      helperText={error}
      fullWidth
      slotProps={{
        select: { native: true },
        inputLabel: { shrink: true },
        htmlInput: { 'data-wanted': wanted },
      }}
    >
      {options.map((option) => (
        <option key={option.value} value={option.value}>
          {option.label}
        </option>
      ))}
    </TextField>
  );
}
