import { InputAdornment, TextField } from '@mui/material';
import { useState } from 'react';
import { useController, useWatch } from 'react-hook-form';
import type { DeviceAsk, DeviceId } from '../../contract';
import { capital } from '../../core/craft/judgement';
import { quantities, type Quantity, readQuantity } from '../../core/craft/units';
import { TakeButton } from './TakeButton';
import { MONO } from './theme';

import { Choice, ClockSetField, ListChoice, ProofList, Several, Tick, YesNo } from './choiceFields';
import type { FieldProps } from './fieldProps';

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
      ? `${reading.reason} Example: ${example}.`
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
      helperText={fieldState.error?.message ?? helper ?? 'separated by spaces, blank if none'}
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
