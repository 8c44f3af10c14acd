import { Box, Button, Stack, Typography } from '@mui/material';
import { lazy, Suspense, useEffect, useState } from 'react';
import { useFormContext } from 'react-hook-form';
import { type JudgedTest, testInWords } from '../../../core/advice/leaks';
import { notToBeRun, testExcess, wetRisk } from '../../../core/advice/tightness';
import { capital } from '../../../core/craft/judgement';
import {
  carriedBy,
  pressureInOtherUnits,
  TEST_GUIDES,
  TEST_METHODS,
  TEST_OUTCOMES,
  type TestMethod,
} from '../../../core/craft/tightness';
import { type KeptRecord, leakMarkWords } from '../../../core/logbook';
import { askDevice, faultWords, useConnected } from '../../api/devices';
import { Columns } from '../../kit/Columns';
import { factFields } from '../../kit/factFields';
import { optionsOf } from '../../kit/fields';
import { Fold } from '../../kit/Fold';
import { Caution } from '../../kit/Lamp';
import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { FromFile } from './FromFile';
import { OnTester } from './OnTester';
import { PlacesField } from './Places';
import { useTesting } from './useTesting';

const TraceFigure = lazy(() => import('../../figures/TraceFigure'));
const testMade = factFields('test.made');

const typedFigure = (value: unknown): number | null =>
  typeof value === 'number' && Number.isFinite(value) ? value : null;

/** Tells the lamp what stands on the form, and takes a step of the plan into it. */
function Told() {
  const { setOnForm, taken } = useTesting();
  const form = useFormContext();
  const [method, record] = [testMade.useValue('method'), testMade.useValue('record')];
  const startUm = typedFigure(testMade.useValue('deflectionStartUm'));
  const endUm = typedFigure(testMade.useValue('deflectionEndUm'));
  const [seconds, overBar] = [
    typedFigure(testMade.useValue('seconds')),
    typedFigure(testMade.useValue('pressureBar')),
  ];
  const temperatureC = typedFigure(testMade.useValue('temperatureC'));
  useEffect(() => {
    if (method !== 'dry air') setOnForm(null);
    else if (record !== null) {
      const { atS, overBar: pressures, deflectionUm } = record;
      setOnForm({ evidence: { record: { atS, overBar: pressures, deflectionUm } }, temperatureC });
    } else if (startUm !== null && endUm !== null && seconds !== null && overBar !== null)
      setOnForm({ evidence: { startUm, endUm, seconds, overBar }, temperatureC });
    else setOnForm(null);
  }, [method, record, startUm, endUm, seconds, overBar, temperatureC, setOnForm]);
  useEffect(() => () => setOnForm(null), [setOnForm]);
  useEffect(() => {
    if (taken === null) return;
    const { step } = taken;
    form.setValue('method', step.method, { shouldDirty: true });
    form.setValue('pressureBar', step.overBar, { shouldDirty: true });
    form.setValue('seconds', step.seconds, { shouldDirty: true });
    if (step.method !== 'dry air') form.setValue('record', null);
  }, [taken, form]);
  return null;
}

/** What a record holds, before it is recorded: its curve, and what was put right in reading it. */
function OnFormRecord({
  record,
  onLeaveOut,
}: {
  readonly record: KeptRecord;
  readonly onLeaveOut: () => void;
}) {
  return (
    <Box>
      <Suspense>
        <TraceFigure record={record} />
      </Suspense>
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center' }}>
        <Typography sx={{ flexGrow: 1 }}>
          {record.atS.length} points from {record.from}.
        </Typography>
        <Button onClick={onLeaveOut}>Remove</Button>
      </Stack>
      {record.repairs.map((line) => (
        <Typography key={line} variant="body2">
          {line}
        </Typography>
      ))}
    </Box>
  );
}

/** A record as the form holds it: not a plain object, so that its thousands of figures are not copied with every key. */
class HeldRecord implements KeptRecord {
  readonly atS: KeptRecord['atS'];
  readonly overBar: KeptRecord['overBar'];
  readonly deflectionUm: KeptRecord['deflectionUm'];
  readonly from: string;
  readonly repairs: KeptRecord['repairs'];
  constructor(read: KeptRecord) {
    this.atS = read.atS;
    this.overBar = read.overBar;
    this.deflectionUm = read.deflectionUm;
    this.from = read.from;
    this.repairs = read.repairs;
  }
}

function DryFields() {
  const { state, context } = useJob();
  const excessReason = testMade.useValue('excessReason');
  const { setting } = useTesting();
  const form = useFormContext();
  const record = testMade.useValue('record');
  const [overBar, seconds] = [
    typedFigure(testMade.useValue('pressureBar')),
    typedFigure(testMade.useValue('seconds')),
  ];
  const outcome = testMade.useValue('outcome');
  const [start, end] = [testMade.useValue('deflectionStartUm'), testMade.useValue('deflectionEndUm')];
  const take = (read: KeptRecord): void => {
    const kept = new HeldRecord(read);
    form.setValue('record', kept, { shouldDirty: true });
    form.setValue('deflectionStartUm', null);
    form.setValue('deflectionEndUm', null);
    const held = carriedBy(kept);
    if (held === null) return;
    form.setValue('pressureBar', Number(held.overBar.toFixed(2)), { shouldDirty: true });
    form.setValue('seconds', held.seconds, { shouldDirty: true });
  };
  if (record !== null)
    return <OnFormRecord record={record} onLeaveOut={() => form.setValue('record', null)} />;
  return (
    <>
      <Stack direction="row" spacing={1.5} sx={{ alignItems: 'start', flexWrap: 'wrap' }}>
        <Box sx={{ flexGrow: 1 }}>
          <OnTester
            overBar={overBar}
            seconds={seconds}
            action="Run it on the tester"
            setting={setting}
            refused={notToBeRun(
              { method: 'dry air', pressureBar: overBar, excessReason },
              state,
              context.policy,
            )}
            onRecord={take}
          />
        </Box>
        <FromFile label="A tester’s record, CSV or JSON" onRecord={take} />
      </Stack>
      <Columns>
        <testMade.MeasureField
          name="deflectionStartUm"
          shownAs="Or enter the deflection at the start"
          quantity="micrometres"
          optional
          helper="after settling, from the baseline"
        />
        <testMade.MeasureField name="deflectionEndUm" quantity="micrometres" optional />
      </Columns>
      {start === null && end === null && (
        <testMade.Choice
          name="outcome"
          shownAs="Result, if nothing was measured"
          options={optionsOf(TEST_OUTCOMES)}
        />
      )}
      {outcome === 'leak seen' && <PlacesField label="It leaked" />}
    </>
  );
}

/** What the tank of the connected tester shows. */
function Tank() {
  const connected = useConnected('leak-tester', 'tank');
  const overBar = typedFigure(testMade.useValue('pressureBar'));
  const [said, setSaid] = useState<string | null>(null);
  if (!connected) return null;
  const look = async (): Promise<void> => {
    const says = await askDevice('leak-tester', { ask: 'tank', pressureBar: overBar ?? 1 });
    setSaid(
      says.says === 'bubbles'
        ? `${says.words}${says.at === null ? '' : ` ${capital(leakMarkWords(says.at))}. Lift it out before you release more pressure.`}`
        : (faultWords(says) ?? 'The tank shows no bubbles.'),
    );
  };
  return (
    <Stack direction="row" spacing={1.5} sx={{ alignItems: 'center' }}>
      <Button variant="outlined" disabled={overBar === null} onClick={() => void look()}>
        Look into the tank
      </Button>
      {said && <Typography role="status">{said}</Typography>}
    </Stack>
  );
}

function ByEye({ method }: { readonly method: TestMethod }) {
  const outcome = testMade.useValue('outcome');
  const { tests } = useTesting();
  const overBar = typedFigure(testMade.useValue('pressureBar'));
  const risk = wetRisk(method, overBar, tests);
  return (
    <>
      {risk !== null && <Caution grave>{risk}</Caution>}
      {method === 'wet' && <Tank />}
      <testMade.Choice name="outcome" options={optionsOf(TEST_OUTCOMES)} />
      {outcome === 'leak seen' && <PlacesField label={method === 'wet' ? 'Bubbles rose' : 'Fog stood'} />}
      {outcome === 'leak seen' && method === 'condensation' && (
        <Box sx={{ maxWidth: 260 }}>
          <testMade.MeasureField
            name="fogSeconds"
            quantity="durationS"
            optional
            helper="blank if not timed"
          />
        </Box>
      )}
    </>
  );
}

/** How the method is made, with its dangers where the hand is about to move. */
function Guide({ method }: { readonly method: TestMethod }) {
  return (
    <Fold summary={`How a ${method} test is made`}>
      <Box component="ol" sx={{ my: 0.5, pl: 3 }}>
        {TEST_GUIDES[method].map(({ what, danger }) => (
          <li key={what}>
            <Typography>{what}</Typography>
            {danger && <Caution>{danger}</Caution>}
          </li>
        ))}
      </Box>
    </Fold>
  );
}

/** Which tests it tries anew, where some stand that leaked or were not clear. */
function RetestOf({ failed }: { readonly failed: readonly JudgedTest[] }) {
  const { facts } = useJob().state;
  if (failed.length === 0) return null;
  const mended = facts.leakFindings.length > 0;
  return (
    <>
      <testMade.Several
        name="retestOf"
        options={failed.map(({ test, shows }) => ({
          value: test.id,
          label: `${capital(testInWords(test))}, ${shows.verdict}`,
        }))}
      />
      <testMade.TextLine
        name="note"
        helper={mended ? 'blank if the finding is recorded' : 'e.g. crown seal renewed'}
      />
    </>
  );
}

/** Beyond what watch, shop or tester are for a reason is wanted; within it nothing is asked. */
function Excess() {
  const { state, context } = useJob();
  const [method, pressureBar] = [testMade.useValue('method'), testMade.useValue('pressureBar')];
  const excess =
    method !== null && Number.isFinite(pressureBar)
      ? testExcess({ method, pressureBar }, state, context.policy)
      : [];
  if (excess.length === 0) return null;
  return (
    <>
      <Caution grave>{excess.join(' ')} The crystal can fly off, and a sound seal can be damaged.</Caution>
      <testMade.TextLine name="excessReason" />
    </>
  );
}

function Fields() {
  const chosen = testMade.useValue('method');
  const overBar = typedFigure(testMade.useValue('pressureBar'));
  const { tests } = useTesting();
  const form = useFormContext();
  useEffect(() => {
    // What belongs to one method alone goes with it.
    if (chosen !== 'dry air') {
      form.setValue('record', null);
      form.setValue('deflectionStartUm', null);
      form.setValue('deflectionEndUm', null);
    }
    if (chosen === 'condensation') form.setValue('pressureBar', null);
    else form.setValue('fogSeconds', null);
  }, [chosen, form]);
  return (
    <>
      <Told />
      <testMade.Choice name="method" options={optionsOf(TEST_METHODS)} wanted={tests.length === 0} />
      {chosen !== null && (
        <>
          <Guide method={chosen} />
          <Columns>
            {chosen !== 'condensation' && (
              <testMade.MeasureField
                name="pressureBar"
                quantity="pressureBar"
                wanted
                helper="above outside air; vacuum with a minus"
              />
            )}
            <testMade.MeasureField
              name="seconds"
              quantity="durationS"
              wanted
              helper={chosen === 'dry air' ? 'under pressure, and as long after venting' : ''}
            />
            <testMade.MeasureField
              name="temperatureC"
              quantity="temperatureC"
              optional
              helper="of the room"
            />
          </Columns>
          {chosen !== 'condensation' && overBar !== null && overBar !== 0 && (
            <Typography variant="body2" color="text.secondary">
              Above outside air: {pressureInOtherUnits(overBar)}.
            </Typography>
          )}
          {chosen === 'dry air' ? <DryFields /> : <ByEye method={chosen} />}
          <Excess />
          <RetestOf failed={tests.filter(({ stands }) => stands)} />
        </>
      )}
    </>
  );
}

/** The form of a test; it begins anew once one is recorded. */
export function TestForm() {
  const { context } = useJob();
  const { usualUmPerBar, notYet } = useTesting();
  return (
    <FactCard
      kind="test.made"
      files
      title="Record a test"
      recorded={null}
      defaults={{
        method: null,
        pressureBar: null,
        seconds: null,
        outcome: null,
        record: null,
        deflectionStartUm: null,
        deflectionEndUm: null,
        testerNoiseUm: context.policy.dryTesterNoiseUm,
        usualUmPerBar,
        places: [],
        fogSeconds: null,
        temperatureC: null,
        note: '',
        retestOf: [],
        excessReason: '',
      }}
      instead={
        notYet === null ? undefined : (
          <Typography>{[...notYet.reasons, notYet.whatToDo].join(' ')}</Typography>
        )
      }
    >
      <Fields />
    </FactCard>
  );
}
