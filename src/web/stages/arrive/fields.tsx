import { Stack, Typography } from '@mui/material';
import { useEffect } from 'react';
import { useController } from 'react-hook-form';
import { money } from '../../../core/craft/money';
import { COMPLAINTS, RISKS } from '../../../core/logbook';
import type { Policy, Service } from '../../../core/craft/policy';
import { MeasureField, optionsOf, Several, TextLine, useFieldValue } from '../../kit/fields';

/** The fields of arrival, shared by taking in and by correcting later. `at` is the path of the fact in its form. */
export function WatchFields({ at = '' }: { readonly at?: string }) {
  return (
    <>
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <TextLine name={`${at}maker`} label="Maker" />
        <TextLine name={`${at}reference`} label="Reference" mono />
        <TextLine name={`${at}serial`} label="Serial" mono />
      </Stack>
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <TextLine name={`${at}engraved`} label="Engraved on the outside" />
        <MeasureField
          name={`${at}ratingBar`}
          label="Water rating"
          quantity="pressureBar"
          optional
          helper="blank if none"
        />
        <MeasureField
          name={`${at}crownClock`}
          label="Crown at"
          quantity="figureOnly"
          optional
          helper="from the dial"
        />
      </Stack>
    </>
  );
}

export function ComplaintFields({ at = '' }: { readonly at?: string }) {
  return (
    <>
      <Several name={`${at}picked`} label="What the owner sees" options={optionsOf(COMPLAINTS)} />
      <TextLine name={`${at}words`} label="In the owner’s words" />
    </>
  );
}

export function RiskFields({ at = '' }: { readonly at?: string }) {
  return (
    <Several
      name={`${at}risks`}
      label="Risks named to the owner"
      options={Object.entries(RISKS).map(([value, label]) => ({ value, label }))}
    />
  );
}

/** Keeps the price with the service chosen, from the shop's list. */
export function PriceOfService({ policy, at = '' }: { readonly policy: Policy; readonly at?: string }) {
  const service = useFieldValue(`${at}service`) as Service;
  const { field } = useController({ name: `${at}priceMinor` });
  const { onChange } = field;
  const listed = policy.services[service].priceMinor;
  useEffect(() => {
    onChange(listed);
  }, [listed, onChange]);
  return <Typography>Price from the list: {money(listed, policy.currency)}</Typography>;
}
