import type { Payloads } from '../../../core/logbook';
import { Stack, Typography } from '@mui/material';
import { fieldsOf } from '../../kit/fields';
import { FactCard, RecordedBy } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { FactList } from '../../job/FactList';
import { OptionalFacts } from '../../kit/OptionalFacts';
import { StageLayout } from '../../kit/StageLayout';
import { AsFound } from './AsFound';
import { CaseBack } from './CaseBack';
import { Measured } from './Measured';
import { OpenLamp } from './OpenLamp';
import { OrderOfWork } from './OrderOfWork';
import { PartComesOff, Tray } from '../../job/Tray';

const openTechnique = fieldsOf<Payloads['open.technique']>();
const openSeals = fieldsOf<Payloads['open.seals']>();
const openInsideSerial = fieldsOf<Payloads['open.inside-serial']>();
const openPrint = fieldsOf<Payloads['open.print']>();

function Mat() {
  const { state, asks } = useJob();
  const { facts } = state;
  return (
    <>
      {(facts.back === null || facts.measured !== null) && <Measured />}
      <OrderOfWork />
      <CaseBack />
      <Tray />
      <PartComesOff />
      <AsFound />
      <FactCard
        kind="open.technique"
        title="For next time"
        recorded={null}
        defaults={{ note: '' }}
        action="Note it"
      >
        {facts.techniques.map((technique) => (
          <Typography key={technique.id}>
            {technique.payload.note} · <RecordedBy entry={technique} />
          </Typography>
        ))}
        <openTechnique.TextLine name="note" label="What to do the same, or not" />
      </FactCard>
      <OptionalFacts
        facts={[
          {
            title: 'Seals counted',
            shown: facts.seals !== null || asks('open.seals'),
            card: (
              <FactCard
                kind="open.seals"
                title="Seals counted"
                recorded={facts.seals}
                defaults={{ rim: null, innerCover: null, hatch: null }}
              >
                <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
                  <openSeals.MeasureField name="rim" label="At the rim" quantity="figureOnly" />
                  <openSeals.MeasureField name="innerCover" label="On an inner cover" quantity="figureOnly" />
                  <openSeals.MeasureField name="hatch" label="At a hatch" quantity="figureOnly" />
                </Stack>
              </FactCard>
            ),
          },
          {
            title: 'Serial inside the back',
            shown: facts.insideSerial !== null,
            card: (
              <FactCard
                kind="open.inside-serial"
                title="Serial inside the back"
                recorded={facts.insideSerial}
                defaults={{ serial: '' }}
              >
                <openInsideSerial.TextLine
                  name="serial"
                  label="As it stands there"
                  mono
                  helper="blank where none stands there"
                />
              </FactCard>
            ),
          },
          {
            title: 'Printed inside',
            shown: facts.prints.length > 0,
            card: (
              <FactList
                kind="open.print"
                title="Printed inside"
                recorded={facts.prints}
                defaults={{ text: '' }}
              >
                <openPrint.TextLine name="text" label="As it stands there: cell, polarity, reset" mono />
              </FactList>
            ),
          },
          ...(facts.back !== null && facts.measured === null
            ? [{ title: 'Measures of the back', shown: false, card: <Measured /> }]
            : []),
        ]}
      />
    </>
  );
}

export default function OpenStage() {
  return <StageLayout mat={<Mat />} lamp={<OpenLamp />} />;
}
