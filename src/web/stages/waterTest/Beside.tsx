import { Box, Stack, Typography } from '@mui/material';
import { useState } from 'react';
import { useFormContext } from 'react-hook-form';
import { driftOf } from '../../../core/craft/tightness';
import { figure } from '../../../core/craft/judgement';
import { type KeptRecord, LEAK_DONE, LEAK_SEATS } from '../../../core/logbook';
import { Columns } from '../../kit/Columns';
import { factFields } from '../../kit/factFields';
import { fieldsOf, optionsOf } from '../../kit/fields';
import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { FromFile } from './FromFile';
import { OnTester } from './OnTester';
import { useTesting } from './useTesting';

const caseSize = factFields('test.case');
const finding = factFields('test.finding');

/** What is known of the free volume: a flow of air is reckoned with it. */
export function CaseSizeCard() {
  const { facts } = useJob().state;
  const across = facts.measured?.payload.caseMm ?? null;
  return (
    <FactCard
      kind="test.case"
      title="Free volume of the case"
      recorded={facts.caseSize}
      defaults={{ freeVolumeCm3: null, withinPercent: null, diameterMm: across, thicknessMm: null }}
      hint={
        <Typography color="text.secondary">
          Enter the measured volume or the case size. Of the case size, one fifth is taken as air (within a
          factor of 1.5).
        </Typography>
      }
    >
      <Columns>
        <caseSize.MeasureField
          name="freeVolumeCm3"
          quantity="volumeCm3"
          optional
          helper="blank if not measured"
        />
        <caseSize.MeasureField name="withinPercent" quantity="figureOnly" unitShown="%" optional />
        <caseSize.MeasureField name="diameterMm" quantity="lengthMm" optional />
        <caseSize.MeasureField name="thicknessMm" quantity="lengthMm" optional />
      </Columns>
    </FactCard>
  );
}

const typed = { start: 'typed.startUm', end: 'typed.endUm', seconds: 'typed.seconds' } as const;
const typedBlank = fieldsOf<Record<(typeof typed)[keyof typeof typed], number>>();
const BLANK_S = 120;

/** The record of a blank run, or what the tester showed at both its ends. */
function BlankFields() {
  const form = useFormContext();
  const { context } = useJob();
  const [record, setRecord] = useState<KeptRecord | null>(null);
  const take = (kept: KeptRecord): void => {
    setRecord(kept);
    form.setValue('record', kept, { shouldDirty: true });
    form.setValue('typed', null);
  };
  const drift = record === null ? null : driftOf(record, context.policy.dryTesterNoiseUm);
  if (record !== null)
    return (
      <Typography>
        {record.atS.length} points from {record.from}
        {drift === null
          ? ': too short, or under pressure. It gives no drift figure.'
          : `: it drifts ${figure(drift.umPerS * 60, 3)} µm a minute, within ${figure(2 * drift.errorUmPerS * 60, 3)}.`}
      </Typography>
    );
  return (
    <>
      <Stack direction="row" spacing={1.5} sx={{ alignItems: 'start', flexWrap: 'wrap' }}>
        <Box>
          <OnTester overBar={0} seconds={BLANK_S} action="Run the tester without pressure" onRecord={take} />
        </Box>
        <FromFile label="The record of a blank run" onRecord={take} />
      </Stack>
      <Columns>
        <typedBlank.MeasureField
          name={typed.start}
          label="Or enter the deflection at the start"
          quantity="micrometres"
        />
        <typedBlank.MeasureField name={typed.end} label="Deflection at the end" quantity="micrometres" />
        <typedBlank.MeasureField name={typed.seconds} label="Duration" quantity="durationS" />
      </Columns>
    </>
  );
}

/** What the tester drifts by itself: without it, or a recovery, drift cannot be told from a leak. */
export function BlankCard() {
  const { blank } = useJob().state.facts;
  return (
    <FactCard
      kind="test.blank"
      title="Blank run of the tester"
      recorded={blank}
      defaults={{ record: null, typed: { startUm: null, endUm: null, seconds: null } as never }}
    >
      <BlankFields />
    </FactCard>
  );
}

/** Where a leak was found, and what was done there; the tests that show it are named with it. */
export function FindingCard() {
  const { tests } = useTesting();
  const foundBy = tests.filter(({ stands }) => stands).map(({ test }) => test.id);
  if (foundBy.length === 0) return null;
  return (
    <FactCard
      key={foundBy.join(' ')}
      kind="test.finding"
      files
      title="Place of the leak"
      recorded={null}
      defaults={{ seat: null, foundBy, done: null, note: '' }}
    >
      <finding.Choice name="seat" options={optionsOf(LEAK_SEATS)} />
      <finding.Choice name="done" options={optionsOf(LEAK_DONE)} />
      <finding.TextLine name="note" />
    </FactCard>
  );
}
