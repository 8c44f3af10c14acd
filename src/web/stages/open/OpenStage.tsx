import { Stack } from '@mui/material';
import { useState } from 'react';
import { factFields } from '../../kit/factFields';

import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { FactList } from '../../job/FactList';
import { OptionalFacts } from '../../job/OptionalFacts';
import { BenchLayout } from '../../job/BenchLayout';
import { AsFound } from './AsFound';
import { Photographs } from '../../job/Photographs';
import { CaseBack } from './CaseBack';
import { KnownAlready, Measured, useBackIsKnown } from './Measured';
import { OpenLamp } from './OpenLamp';
import { OrderOfWork } from './OrderOfWork';
import { PartComesOff, Tray } from '../../job/Tray';

const openTechnique = factFields('open.technique');
const openSeals = factFields('open.seals');
const openInsideSerial = factFields('open.inside-serial');
const openPrint = factFields('open.print');

function ForNextTime() {
  const { facts } = useJob().state;
  return (
    <FactList
      kind="open.technique"
      title="For next time"
      recorded={facts.techniques}
      defaults={{ note: '' }}
      action="Record note"
      inline
    >
      <openTechnique.TextLine name="note" />
    </FactList>
  );
}

function SealsCounted() {
  const { facts } = useJob().state;
  return (
    <FactCard
      kind="open.seals"
      title="Seals counted"
      recorded={facts.seals}
      defaults={{ rim: null, innerCover: null, hatch: null }}
    >
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        <openSeals.MeasureField name="rim" quantity="figureOnly" />
        <openSeals.MeasureField name="innerCover" quantity="figureOnly" />
        <openSeals.MeasureField name="hatch" quantity="figureOnly" />
      </Stack>
    </FactCard>
  );
}

function SerialInside() {
  const { facts } = useJob().state;
  return (
    <FactCard
      kind="open.inside-serial"
      title="Serial inside the back"
      recorded={facts.insideSerial}
      defaults={{ serial: '' }}
    >
      <openInsideSerial.TextLine name="serial" mono helper="blank if there is none" />
    </FactCard>
  );
}

function PrintedInside() {
  const { facts } = useJob().state;
  return (
    <FactList kind="open.print" title="Printed inside" recorded={facts.prints} defaults={{ text: '' }}>
      <openPrint.TextLine name="text" mono helper="as printed: cell, polarity, reset" />
    </FactList>
  );
}

function Mat() {
  const { state, asks } = useJob();
  const { facts } = state;
  const [measuring, setMeasuring] = useState(false);
  const isKnown = useBackIsKnown() && !measuring;
  const measured = facts.back !== null && facts.measured === null ? 'later' : isKnown ? 'known' : 'here';
  return (
    <>
      {measured === 'here' && <Measured />}
      <CaseBack />
      {measured === 'known' && <KnownAlready onMeasure={() => setMeasuring(true)} />}
      <OrderOfWork />
      <Tray />
      <OptionalFacts
        facts={[
          { title: 'Part removed', shown: false, card: <PartComesOff /> },
          {
            title: 'As found, before anything is touched',
            shown: facts.asFound !== null || asks('open.as-found'),
            card: <AsFound />,
          },
          {
            title: 'For next time',
            shown: facts.techniques.length > 0,
            card: <ForNextTime />,
          },
          {
            title: 'Seals counted',
            shown: facts.seals !== null || asks('open.seals'),
            card: <SealsCounted />,
          },
          {
            title: 'Serial inside the back',
            shown: facts.insideSerial !== null,
            card: <SerialInside />,
          },
          {
            title: 'Printed inside',
            shown: facts.prints.length > 0,
            card: <PrintedInside />,
          },
          ...(measured === 'later'
            ? [{ title: 'Measures of the back', shown: false, card: <Measured /> }]
            : []),
        ]}
      />
    </>
  );
}

export default function OpenStage() {
  return <BenchLayout mat={<Mat />} lamp={<OpenLamp />} below={<Photographs />} />;
}
