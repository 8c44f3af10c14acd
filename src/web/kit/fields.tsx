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
  Stack,
  TextField,
  Typography,
} from '@mui/material';
import { type RefCallback, useId, useState } from 'react';
import { useController, useWatch } from 'react-hook-form';
import { capital } from '../../core/craft/judgement';
import { PROOF_RESULTS } from '../../core/craft/setting';
import { quantities, type Quantity, readQuantity } from '../../core/craft/units';
import { MONO } from './theme';
import type { DeviceAsk, DeviceId } from '../../contract';
import { CHOICE } from './keys/choices';
import { NativeSelect } from './NativeSelect';
import { TakeButton } from './TakeButton';

/** What is asked before its few answers, in one row where there is room. */
const ONE_ROW = {
  flexDirection: { xs: 'column', sm: 'row' },
  flexWrap: 'wrap',
  alignItems: { sm: 'center' },
  columnGap: 2,
  '& > .MuiFormLabel-root': { flex: { sm: '0 0 130px' }, lineHeight: 1.25 },
  '& > .MuiFormGroup-root': { flex: { sm: '1 1 200px' } },
} as const;

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
  /** How many of what the form holds make one of what is typed: 100 for money in minor units. */
  readonly scale?: number;
  /** Shown behind the figure instead of the quantity's own unit. */
  readonly unitShown?: string;
  /** The device it can be taken from; lengths come from the caliper, light from its meter. */
  readonly from?: { readonly device: DeviceId; readonly ask: DeviceAsk };
  /** A blank field means null: nobody knows. */
  readonly optional?: boolean;
  readonly helper?: string;
}

/** What is taken from which device, where nothing else is said. */
const TAKEN_FROM: Partial<Record<Quantity, NonNullable<MeasureProps['from']>>> = {
  lengthMm: { device: 'caliper', ask: { ask: 'length' } },
  illuminanceLux: { device: 'light-meter', ask: { ask: 'light' } },
};

/** A figure as a hand or a caliper types it; shows what was understood. The form holds the number in the kept unit. */
export function MeasureField({
  name,
  label,
  quantity,
  optional = false,
  wanted = false,
  helper,
  scale = 1,
  unitShown,
  from = TAKEN_FROM[quantity],
}: MeasureProps) {
  const { field, fieldState } = useController({ name });
  const { unit: ownUnit, example } = quantities[quantity];
  const unit = unitShown ?? ownUnit;
  const written = (value: unknown): string =>
    typeof value === 'number' && !Number.isNaN(value)
      ? scale === 1
        ? String(value)
        : (value / scale).toFixed(2)
      : '';
  const scaled = (value: number): number => (scale === 1 ? value : Math.round(value * scale));
  const [typed, setTyped] = useState({ text: written(field.value), value: field.value as unknown });
  // What was typed stands as long as it is what the form holds; a value set from elsewhere is shown instead.
  const text = Object.is(typed.value, field.value) ? typed.text : written(field.value);
  const reading = text.trim() === '' ? null : readQuantity(text, quantity);
  const showsError = fieldState.error !== undefined || reading?.verdict === 'not read';
  const message =
    reading?.verdict === 'not read'
      ? `${reading.reason} A good value: ${example}.`
      : (fieldState.error?.message ??
        // What is understood just as it was typed needs no telling.
        (fieldState.isDirty && reading?.verdict === 'read' && reading.understood !== text.trim()
          ? `Understood: ${reading.understood}`
          : (helper ?? (reading ? ' ' : `e.g. ${example}`))));
  const take = (given: string): void => {
    const read = given.trim() === '' ? null : readQuantity(given, quantity);
    const blank = optional ? null : undefined;
    const value = read === null ? blank : read.verdict === 'read' ? scaled(read.value) : Number.NaN;
    setTyped({ text: given, value });
    field.onChange(value);
  };
  return (
    <TextField
      label={label}
      value={text}
      onChange={(event) => take(event.target.value)}
      onBlur={field.onBlur}
      inputRef={field.ref}
      error={showsError}
      helperText={message}
      sx={{ maxWidth: 340 }}
      slotProps={{
        input: {
          endAdornment:
            unit || from ? (
              <InputAdornment position="end">
                {unit}
                {from && <TakeButton device={from.device} ask={from.ask} label={label} onText={take} />}
              </InputAdornment>
            ) : undefined,
        },
        htmlInput: {
          'data-wanted': wanted,
          'data-measure': quantity,
          inputMode: 'decimal',
          autoComplete: 'off',
          style: { fontFamily: MONO, fontSize: '1.35rem' },
        },
      }}
    />
  );
}

/** A list of figures, parted by commas or spaces. */
export function NumbersField({ name, label, helper }: FieldProps & { readonly helper?: string }) {
  const { field, fieldState } = useController({ name });
  const [typed, setTyped] = useState(((field.value as readonly number[] | undefined) ?? []).join(' '));
  return (
    <TextField
      label={label}
      fullWidth
      value={typed}
      inputRef={field.ref}
      error={fieldState.error !== undefined}
      helperText={fieldState.error?.message ?? helper ?? 'parted by spaces, blank if none'}
      onChange={(event) => {
        setTyped(event.target.value);
        field.onChange(
          event.target.value
            .split(/[\s;]+/)
            .filter((each) => each !== '')
            .map((each) => Number(each.replace(',', '.'))),
        );
      }}
    />
  );
}

/** A sum as typed, `14.50`; the form holds minor units. */
export function MoneyField({
  currency,
  ...field
}: FieldProps & { readonly currency: string; readonly optional?: boolean; readonly helper?: string }) {
  return <MeasureField {...field} quantity="figureOnly" scale={100} unitShown={currency} />;
}

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
}

/** Any of a few. */
export function Several({ name, label, options, wanted = false }: SeveralProps) {
  const { field, fieldState } = useController({ name });
  return (
    <SeveralOf
      label={label}
      options={options}
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
  wanted = false,
}: SeveralOfProps) {
  const labelId = useId();
  return (
    <FormControl role="group" aria-labelledby={labelId} error={error !== undefined} sx={ONE_ROW}>
      <FormLabel id={labelId}>{label}</FormLabel>
      <FormGroup row>
        {options.map((option, index) => (
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
            Asked because: {because}.
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

/** A clock position on the case, halves allowed; blank is null. The label says from which side it is seen. */
export function ClockField({ name, label, from }: FieldProps & { readonly from: string }) {
  return (
    <MeasureField
      name={name}
      label={label}
      quantity="figureOnly"
      optional
      helper={`seen from ${from}, 1 to 12; blank if none`}
    />
  );
}

export function optionsOf(values: readonly string[]): { readonly value: string; readonly label: string }[] {
  return values.map((value) => ({ value, label: capital(value) }));
}

/** The same with a first line for nothing chosen. */
export function optionsOrNone(values: readonly string[], none: string): ReturnType<typeof optionsOf> {
  return [{ value: '', label: none }, ...optionsOf(values)];
}

/** The value of one field, as it is typed. */
export function useFieldValue(name: string): unknown {
  return useWatch({ name });
}

export const FIELDS = {
  TextLine,
  MeasureField,
  NumbersField,
  MoneyField,
  ListChoice,
  Choice,
  Several,
  Tick,
  YesNo,
  ClockSetField,
  ProofList,
  ClockField,
};

type Named<P, Field> = Field extends (props: infer Props) => infer Shown
  ? (props: Omit<Props, 'name'> & { readonly name: keyof P & string }) => Shown
  : never;

/** A value as the form holds it: a figure that is not typed yet is null, or no number; a choice that is not made yet is null. */
export type AsTyped<V> = V extends number
  ? V | null
  : V extends string
    ? string extends V
      ? V
      : V | null
    : V;

type FieldsOf<P> = { readonly [Field in keyof typeof FIELDS]: Named<P, (typeof FIELDS)[Field]> } & {
  /** What one field holds, as it is typed. */
  readonly useValue: <N extends keyof P & string>(name: N) => AsTyped<P[N]>;
};

/** The fields for what a form records: the same components, but they take only names that are in it. */
export function fieldsOf<P>(): FieldsOf<P> {
  return {
    ...FIELDS,
    useValue: <N extends keyof P & string>(name: N) => useFieldValue(name) as AsTyped<P[N]>,
  };
}
