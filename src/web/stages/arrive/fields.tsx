import { Stack, Typography } from '@mui/material';
import { useEffect } from 'react';
import { useController } from 'react-hook-form';
import { money } from '../../../core/craft/money';
import { COMPLAINTS, type Payloads, RISKS } from '../../../core/logbook';
import type { Policy, Service } from '../../../core/craft/policy';
import { MeasureField, optionsOf, Several, TextLine, useFieldValue } from '../../kit/fields';

/** Where a fact stands in its form: alone, or under its own name in the form of taking in. */
interface Placed<Name extends string> {
  readonly at?: '' | `${Name}.`;
}

/** The names of a fact's fields where it stands in its form. */
const namesOf =
  <P,>(at: string) =>
  (name: keyof P & string): string =>
    `${at}${name}`;

/** The fields of arrival, shared by taking in and by correcting later. */
export function WatchFields({ at = '' }: Placed<'watch'>) {
  const name = namesOf<Payloads['arrive.watch']>(at);
  return (
    <>
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <TextLine name={name('reference')} label="Reference" mono />
        <TextLine name={name('serial')} label="Serial" mono />
        <TextLine name={name('maker')} label="Maker" />
      </Stack>
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <TextLine name={name('engraved')} label="Engraved on the outside" />
        <MeasureField
          name={name('ratingBar')}
          label="Water rating"
          quantity="ratingBar"
          optional
          helper="e.g. 3 bar, 50 m, 3 atm; blank if none"
        />
        <MeasureField
          name={name('crownClock')}
          label="Crown at"
          quantity="figureOnly"
          optional
          helper="seen from the dial"
        />
      </Stack>
    </>
  );
}

export function ComplaintFields({ at = '' }: Placed<'complaint'>) {
  const name = namesOf<Payloads['arrive.complaint']>(at);
  return (
    <>
      <Several name={name('picked')} label="What the owner sees" options={optionsOf(COMPLAINTS)} wanted />
      <TextLine name={name('words')} label="In the owner’s words" />
    </>
  );
}

export function StoppedField({ at = '' }: Placed<'stopped'>) {
  const name = namesOf<Payloads['arrive.stopped']>(at);
  return (
    <TextLine
      name={name('stoppedOn')}
      label="Stopped since"
      helper="a year, year-month or day, e.g. 2026-02; blank if the owner does not know"
      blankIsNull
    />
  );
}

export function RiskFields({ at = '' }: Placed<'consent'>) {
  const name = namesOf<Payloads['arrive.consent']>(at);
  return (
    <Several
      name={name('risks')}
      label="Risks named to the owner"
      options={Object.entries(RISKS).map(([value, label]) => ({ value, label }))}
    />
  );
}

/** Keeps the price with the service chosen, from the shop's list. */
export function PriceOfService({ policy, at = '' }: { readonly policy: Policy } & Placed<'service'>) {
  const name = namesOf<Payloads['arrive.service']>(at);
  const service = useFieldValue(name('service')) as Service;
  const { field } = useController({ name: name('priceMinor') });
  const { onChange } = field;
  const listed = policy.services[service].priceMinor;
  useEffect(() => {
    onChange(listed);
  }, [listed, onChange]);
  return <Typography>Price from the list: {money(listed, policy.currency)}</Typography>;
}
