import {
  Button,
  Checkbox,
  FormControl,
  FormControlLabel,
  FormGroup,
  FormHelperText,
  FormLabel,
  Radio,
  RadioGroup,
  Stack,
  Typography,
} from '@mui/material';
import { type RefCallback, useId, useState } from 'react';
import { useController } from 'react-hook-form';
import { capital } from '../../core/craft/judgement';
import { PROOF_RESULTS } from '../../core/craft/setting';
import { CHOICE } from './keys/choices';
import { NativeSelect } from './NativeSelect';

import type { FieldProps } from './fieldProps';

/** What is asked before its few answers, in one row where there is room. */
const ONE_ROW = {
  flexDirection: { xs: 'column', sm: 'row' },
  flexWrap: 'wrap',
  alignItems: { sm: 'center' },
  columnGap: 2,
  '& > .MuiFormLabel-root': { flex: { sm: '0 0 130px' }, lineHeight: 1.25 },
  '& > .MuiFormGroup-root': { flex: { sm: '1 1 200px' } },
} as const;

/** One of a longer list, bound to its form. */
export function ListChoice({ name, label, options, wanted = false }: ChoiceProps) {
  const { field, fieldState } = useController({ name });
  return (
    <NativeSelect
      label={label}
      value={(field.value as string | null) ?? ''}
      options={options}
      onChange={(value) => field.onChange(value === '' ? null : value)}
      fieldRef={field.ref}
      error={fieldState.error?.message}
      wanted={wanted}
    />
  );
}

interface ChoiceProps extends FieldProps {
  readonly options: readonly { readonly value: string; readonly label: string }[];
}

/** One of a few, by arrow keys or touch. */
export function Choice({ name, label, options, wanted = false }: ChoiceProps) {
  const { field, fieldState } = useController({ name });
  return (
    <Radios
      label={label}
      value={(field.value as string | null) ?? ''}
      options={options}
      onChange={field.onChange}
      onBlur={field.onBlur}
      fieldRef={field.ref}
      error={fieldState.error?.message}
      wanted={wanted}
    />
  );
}

interface RadiosProps {
  readonly label: string;
  /** Empty: nothing was chosen yet. */
  readonly value: string;
  readonly options: ChoiceProps['options'];
  readonly onChange: (value: string) => void;
  readonly onBlur: () => void;
  /** Takes the one chosen, or else the first, so that the focus comes here where something is wrong. */
  readonly fieldRef?: RefCallback<HTMLInputElement>;
  readonly error: string | undefined;
  readonly wanted?: boolean;
}

/** One of a few side by side; the wanted focus is on the one chosen, or else the first. */
export function Radios({
  label,
  value,
  options,
  onChange,
  onBlur,
  fieldRef,
  error,
  wanted = false,
}: RadiosProps) {
  const labelId = useId();
  const first = value === '' ? options[0]?.value : value;
  return (
    <FormControl error={error !== undefined} sx={ONE_ROW}>
      <FormLabel id={labelId}>{label}</FormLabel>
      <RadioGroup
        row
        aria-labelledby={labelId}
        value={value}
        onChange={(_, next) => onChange(next)}
        onBlur={onBlur}
      >
        {options.map((option) => (
          <FormControlLabel
            key={option.value}
            className={CHOICE}
            value={option.value}
            label={option.label}
            control={
              <Radio
                slotProps={{
                  input: {
                    'data-wanted': wanted && option.value === first,
                    ...(option.value === first && fieldRef ? { ref: fieldRef } : {}),
                  } as React.InputHTMLAttributes<HTMLInputElement>,
                }}
              />
            }
          />
        ))}
      </RadioGroup>
      {error !== undefined && <FormHelperText>{error}</FormHelperText>}
    </FormControl>
  );
}

interface SeveralProps extends FieldProps {
  readonly options: readonly { readonly value: string | number; readonly label: string }[];
  /** Those that stand at once; the others come on demand, or where one of them is picked. All where it is left out. */
  readonly usual?: readonly (string | number)[];
}

/** Any of a few. */
export function Several({ name, label, options, usual, wanted = false }: SeveralProps) {
  const { field, fieldState } = useController({ name });
  return (
    <SeveralOf
      label={label}
      options={options}
      {...(usual && { usual })}
      picked={(field.value as readonly (string | number)[] | undefined) ?? []}
      onPick={field.onChange}
      firstRef={field.ref}
      error={fieldState.error?.message}
      wanted={wanted}
    />
  );
}

interface SeveralOfProps extends Omit<SeveralProps, 'name'> {
  readonly picked: readonly (string | number)[];
  readonly onPick: (picked: readonly (string | number)[]) => void;
  /** Takes the first of them, so that the focus comes here where something is wrong. */
  readonly firstRef?: RefCallback<HTMLInputElement>;
  readonly error?: string | undefined;
}

/** Any of a few, where no form stands. */
export function SeveralOf({
  label,
  options,
  picked,
  onPick,
  firstRef,
  error,
  usual,
  wanted = false,
}: SeveralOfProps) {
  const labelId = useId();
  const [all, setAll] = useState(false);
  const shown = options.filter(
    ({ value }) => all || usual === undefined || usual.includes(value) || picked.includes(value),
  );
  return (
    <FormControl role="group" aria-labelledby={labelId} error={error !== undefined} sx={ONE_ROW}>
      <FormLabel id={labelId}>{label}</FormLabel>
      <FormGroup row>
        {shown.map((option, index) => (
          <FormControlLabel
            key={option.value}
            className={CHOICE}
            label={option.label}
            control={
              <Checkbox
                checked={picked.includes(option.value)}
                onChange={(_, on) =>
                  onPick(on ? [...picked, option.value] : picked.filter((each) => each !== option.value))
                }
                slotProps={{
                  input: {
                    'data-wanted': wanted && index === 0,
                    ...(index === 0 && firstRef ? { ref: firstRef } : {}),
                  } as React.InputHTMLAttributes<HTMLInputElement>,
                }}
              />
            }
          />
        ))}
        {(all || shown.length < options.length) && (
          // It stays, so that a hand at the keys keeps the focus.
          <Button
            aria-expanded={all}
            aria-label={`${label}: ${all ? 'fewer' : `${options.length - shown.length} more`}`}
            onClick={() => setAll(!all)}
          >
            {all ? 'Fewer' : `${options.length - shown.length} more`}
          </Button>
        )}
      </FormGroup>
      {error !== undefined && <FormHelperText>{error}</FormHelperText>}
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
            slotProps={{
              input: {
                'data-wanted': wanted,
                ref: field.ref,
              } as React.InputHTMLAttributes<HTMLInputElement>,
            }}
          />
        }
      />
      {fieldState.error && <FormHelperText>{fieldState.error.message}</FormHelperText>}
    </FormControl>
  );
}

interface YesNoProps extends FieldProps {
  readonly yes: string;
  readonly no: string;
}

/** Yes, no, or not said yet: nothing stands there that nobody saw. */
export function YesNo({ name, label, yes, no, wanted = false }: YesNoProps) {
  const { field, fieldState } = useController({ name });
  return (
    <Radios
      label={label}
      value={field.value === true ? 'yes' : field.value === false ? 'no' : ''}
      options={[
        { value: 'yes', label: yes },
        { value: 'no', label: no },
      ]}
      onChange={(next) => field.onChange(next === 'yes')}
      onBlur={field.onBlur}
      fieldRef={field.ref}
      error={fieldState.error?.message}
      wanted={wanted}
    />
  );
}

/** Clock positions on the case, any of the twelve. */
export function ClockSetField({ name, label }: FieldProps) {
  return (
    <Several
      name={name}
      label={label}
      options={Array.from({ length: 12 }, (_, index) => ({ value: index + 1, label: String(index + 1) }))}
    />
  );
}

/** Works, does not work, is not there, or not tried: one line a thing to prove. */
export function ProofList({
  name,
  steps,
  wanted = false,
}: {
  readonly name: string;
  readonly steps: readonly { readonly what: string; readonly how: string; readonly because: string | null }[];
  readonly wanted?: boolean;
}) {
  const { field } = useController({ name });
  const proved = field.value as Readonly<Record<string, string>>;
  return steps.map(({ what, how, because }, index) => (
    <Stack
      key={what}
      direction={{ xs: 'column', sm: 'row' }}
      spacing={2}
      sx={{ alignItems: { sm: 'center' } }}
    >
      <Typography sx={{ flexGrow: 1 }}>
        <strong>{capital(what)}.</strong> {how}
        {because !== null && (
          <Typography component="span" variant="body2" color="text.secondary" sx={{ display: 'block' }}>
            Reason: {because}.
          </Typography>
        )}
      </Typography>
      <RadioGroup
        row
        aria-label={what}
        value={proved[what] ?? ''}
        onChange={(_, result) => field.onChange({ ...proved, [what]: result })}
        // Three answers beside the words: no room is given away.
        sx={{
          flexShrink: 0,
          '& .MuiFormControlLabel-root': { ml: 0, mr: 0.5 },
          '& .MuiFormControlLabel-label': { fontSize: '0.9rem' },
          '& .MuiRadio-root': { px: 0.25 },
        }}
      >
        {PROOF_RESULTS.map((result) => (
          <FormControlLabel
            key={result}
            className={CHOICE}
            value={result}
            label={result}
            control={
              <Radio
                slotProps={{
                  input: {
                    'data-wanted': wanted && index === 0 && result === 'works',
                  } as React.InputHTMLAttributes<HTMLInputElement>,
                }}
              />
            }
          />
        ))}
      </RadioGroup>
    </Stack>
  ));
}
