import { Stack, Typography } from '@mui/material';
import { useEffect } from 'react';
import { useController } from 'react-hook-form';
import { money } from '../../../core/craft/money';
import { type Complaint, COMPLAINTS, type Payloads, RISKS } from '../../../core/logbook';
import type { Policy, Service } from '../../../core/craft/policy';
import { factFields } from '../../kit/factFields';
import { optionsOf, useFieldValue } from '../../kit/fields';

/** Where a fact stands in its form: alone, or under its own name in the form of taking in. */
interface Placed<Name extends string> {
  readonly at?: '' | `${Name}.`;
}

/** The names of a fact's fields where it stands in its form. */
const namesOf =
  <P,>(at: string) =>
  (name: keyof P & string): string =>
    `${at}${name}`;

const watch = factFields('arrive.watch');
const complaint = factFields('arrive.complaint');
const stopped = factFields('arrive.stopped');
const consent = factFields('arrive.consent');

/** What most owners come with. */
const USUAL_COMPLAINTS: readonly Complaint[] = [
  'stopped',
  'loses time',
  'hand steps in twos or fours',
  'does not hold its charge',
];

/** The fields of arrival, shared by taking in and by correcting later. */
export function WatchFields({ at = '' }: Placed<'watch'>) {
  return (
    <>
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <watch.TextLine at={at} name="reference" mono />
        <watch.TextLine at={at} name="serial" mono />
        <watch.TextLine at={at} name="maker" />
      </Stack>
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <watch.TextLine at={at} name="engraved" />
        <watch.MeasureField
          at={at}
          name="ratingBar"
          quantity="ratingBar"
          optional
          helper="e.g. 3 bar, 50 m, 3 atm; blank if none"
        />
        <watch.MeasureField
          at={at}
          name="crownClock"
          quantity="figureOnly"
          optional
          helper="seen from the dial"
        />
      </Stack>
    </>
  );
}

export function ComplaintFields({ at = '' }: Placed<'complaint'>) {
  return (
    <>
      <complaint.Several
        at={at}
        name="picked"
        options={optionsOf(COMPLAINTS)}
        usual={USUAL_COMPLAINTS}
        wanted
      />
      <complaint.TextLine at={at} name="words" />
    </>
  );
}

export function StoppedField({ at = '' }: Placed<'stopped'>) {
  return (
    <stopped.TextLine
      at={at}
      name="stoppedOn"
      helper="year, month or day, e.g. 2026-02; blank if the owner does not know"
      blankIsNull
    />
  );
}

export function RiskFields({ at = '' }: Placed<'consent'>) {
  return (
    <consent.Several
      at={at}
      name="risks"
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
