import {
  Checkbox,
  FormControl,
  FormControlLabel,
  FormGroup,
  FormHelperText,
  FormLabel,
  InputAdornment,
  Radio,
  RadioGroup,
  TextField,
} from '@mui/material';
import { useId, useState } from 'react';
import { useController, useFormContext } from 'react-hook-form';
import { quantities, type Quantity, readQuantity } from '../../core/units';
import { MONO } from '../app/theme';

interface FieldProps {
  readonly name: string;
  readonly label: string;
  readonly wanted?: boolean;
}

interface TextProps extends FieldProps {
  readonly mono?: boolean;
  readonly autoFocus?: boolean;
  readonly helper?: string;
  readonly onText?: (text: string) => void;
  readonly blankIsNull?: boolean;
}

export function TextLine({
  name,
  label,
  wanted = false,
  mono = false,
  autoFocus = false,
  helper,
  onText,
  blankIsNull = false,
}: TextProps) {
  const { field, fieldState } = useController({ name });
  return (
    <TextField
      label={label}
      value={(field.value as string | null) ?? ''}
      onChange={(event) => {
        field.onChange(blankIsNull && event.target.value === '' ? null : event.target.value);
        onText?.(event.target.value);
      }}
      onBlur={field.onBlur}
      inputRef={field.ref}
      error={fieldState.error !== undefined}
      helperText={fieldState.error?.message ?? helper}
      autoFocus={autoFocus}
      fullWidth
      slotProps={{
        htmlInput: {
          'data-wanted': wanted,
          autoComplete: 'off',
          spellCheck: false,
          style: mono ? { fontFamily: MONO, fontSize: '1.25rem' } : undefined,
        },
      }}
    />
  );
}

interface MeasureProps extends FieldProps {
  readonly quantity: Quantity;
  /** A blank field means null: nobody knows. */
  readonly optional?: boolean;
  readonly helper?: string;
}

/** A figure as a hand or a caliper types it; shows what was understood. The form holds the number in the kept unit. */
export function MeasureField({
  name,
  label,
  quantity,
  optional = false,
  wanted = false,
  helper,
}: MeasureProps) {
  const { field, fieldState } = useController({ name });
  const { unit, example } = quantities[quantity];
  const written = (value: unknown): string =>
    typeof value === 'number' && !Number.isNaN(value) ? String(value) : '';
  const [typed, setTyped] = useState({ text: written(field.value), value: field.value as unknown });
  // What was typed stands as long as it is what the form holds; a value set from elsewhere is shown instead.
  const text = Object.is(typed.value, field.value) ? typed.text : written(field.value);
  const reading = text.trim() === '' ? null : readQuantity(text, quantity);
  const showsError = fieldState.error !== undefined || reading?.verdict === 'not read';
  const message =
    reading?.verdict === 'not read'
      ? `${reading.reason} A good value: ${example}.`
      : (fieldState.error?.message ??
        (reading?.verdict === 'read' ? `Understood: ${reading.understood}` : (helper ?? `e.g. ${example}`)));
  return (
    <TextField
      label={label}
      value={text}
      onChange={(event) => {
        const read = event.target.value.trim() === '' ? null : readQuantity(event.target.value, quantity);
        const blank = optional ? null : undefined;
        const value = read === null ? blank : read.verdict === 'read' ? read.value : Number.NaN;
        setTyped({ text: event.target.value, value });
        field.onChange(value);
      }}
      onBlur={field.onBlur}
      inputRef={field.ref}
      error={showsError}
      helperText={message}
      sx={{ maxWidth: 340 }}
      slotProps={{
        input: { endAdornment: unit ? <InputAdornment position="end">{unit}</InputAdornment> : undefined },
        htmlInput: {
          'data-wanted': wanted,
          'data-measure': true,
          inputMode: 'decimal',
          autoComplete: 'off',
          style: { fontFamily: MONO, fontSize: '1.35rem' },
        },
      }}
    />
  );
}

interface ChoiceProps extends FieldProps {
  readonly options: readonly { readonly value: string; readonly label: string }[];
}

/** One of a few, by arrow keys or touch. */
export function Choice({ name, label, options, wanted = false }: ChoiceProps) {
  const { field, fieldState } = useController({ name });
  const labelId = useId();
  const value = (field.value as string | null) ?? '';
  const first = value === '' ? options[0]?.value : value;
  return (
    <FormControl error={fieldState.error !== undefined}>
      <FormLabel id={labelId}>{label}</FormLabel>
      <RadioGroup
        row
        aria-labelledby={labelId}
        value={value}
        onChange={(_, next) => field.onChange(next)}
        onBlur={field.onBlur}
      >
        {options.map((option) => (
          <FormControlLabel
            key={option.value}
            value={option.value}
            label={option.label}
            control={
              <Radio
                slotProps={{
                  input: {
                    'data-wanted': wanted && option.value === first,
                  } as React.InputHTMLAttributes<HTMLInputElement>,
                }}
              />
            }
          />
        ))}
      </RadioGroup>
      {fieldState.error && <FormHelperText>{fieldState.error.message}</FormHelperText>}
    </FormControl>
  );
}

interface SeveralProps extends FieldProps {
  readonly options: readonly { readonly value: string; readonly label: string }[];
}

/** Any of a few. */
export function Several({ name, label, options, wanted = false }: SeveralProps) {
  const { field, fieldState } = useController({ name });
  const picked = (field.value as readonly string[] | undefined) ?? [];
  return (
    <FormControl component="fieldset" error={fieldState.error !== undefined}>
      <FormLabel component="legend">{label}</FormLabel>
      <FormGroup row>
        {options.map((option, index) => (
          <FormControlLabel
            key={option.value}
            label={option.label}
            control={
              <Checkbox
                checked={picked.includes(option.value)}
                onChange={(_, on) =>
                  field.onChange(
                    on ? [...picked, option.value] : picked.filter((each) => each !== option.value),
                  )
                }
                slotProps={{
                  input: {
                    'data-wanted': wanted && index === 0,
                  } as React.InputHTMLAttributes<HTMLInputElement>,
                }}
              />
            }
          />
        ))}
      </FormGroup>
      {fieldState.error && <FormHelperText>{fieldState.error.message}</FormHelperText>}
    </FormControl>
  );
}

/** Yes or no to one thing. */
export function Tick({ name, label, wanted = false }: FieldProps) {
  const { field, fieldState } = useController({ name });
  return (
    <FormControl error={fieldState.error !== undefined}>
      <FormControlLabel
        label={label}
        control={
          <Checkbox
            checked={field.value === true}
            onChange={(_, on) => field.onChange(on)}
            slotProps={{ input: { 'data-wanted': wanted } as React.InputHTMLAttributes<HTMLInputElement> }}
          />
        }
      />
      {fieldState.error && <FormHelperText>{fieldState.error.message}</FormHelperText>}
    </FormControl>
  );
}

/** A clock position on the case, halves allowed; blank is null. */
export function ClockField({ name, label }: FieldProps) {
  return (
    <MeasureField
      name={name}
      label={label}
      quantity="figureOnly"
      optional
      helper="1 to 12, from behind; blank if none"
    />
  );
}

export function optionsOf(values: readonly string[]): { readonly value: string; readonly label: string }[] {
  return values.map((value) => ({ value, label: value.charAt(0).toUpperCase() + value.slice(1) }));
}

/** The value of one field, as it is typed. */
export function useFieldValue(name: string): unknown {
  return useFormContext().watch(name);
}
