import { Button, Stack, Typography } from '@mui/material';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { proofSteps } from '../../../core/advice/proving';
import { seenMovement } from '../../../core/advice/identify';
import { OUTSIDE, type Outside, type ProofStep } from '../../../core/craft/setting';
import { failedProofs } from '../../../core/logbook';
import { factFields } from '../../kit/factFields';

import { useKey } from '../../kit/keys/KeysProvider';
import { focusRequired } from '../../kit/keys/required';
import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { Before } from './Before';

const setFunctions = factFields('set.functions');
const setOutside = factFields('set.outside');

type Proved = Readonly<Record<string, string>>;
const anyFails = (proved: Proved): boolean => Object.values(proved).includes('does not work');

/** What was seen not to work is not taken back by one key. */
function UnlessOneFails({ steps }: { readonly steps: readonly ProofStep[] }) {
  const proved: Proved = setFunctions.useValue('proved');
  return anyFails(proved) ? null : <AllWork steps={steps} />;
}

/** Every function proved, and recorded as it is said. */
function AllWork({ steps }: { readonly steps: readonly ProofStep[] }) {
  const { record, technician } = useJob();
  const allWork = (): void => {
    if (technician === null) return;
    void record('set.functions', {
      proved: Object.fromEntries(steps.map(({ what }) => [what, 'works' as const])),
      handedBackSo: '',
    });
    focusRequired();
  };
  useKey('a', 'All work as shown', allWork);
  return (
    <Button
      variant="outlined"
      onClick={allWork}
      disabled={technician === null}
      sx={{ alignSelf: 'flex-start' }}
    >
      All work as shown (a)
    </Button>
  );
}

/** Where something fails: why the watch goes back so, if it does. */
function IfItFails({ fields }: { readonly fields: typeof setFunctions | typeof setOutside }) {
  const proved: Proved = fields.useValue('proved');
  if (!anyFails(proved)) return null;
  return (
    <fields.TextLine
      name="handedBackSo"
      helper="blank if it will be repaired first; otherwise e.g. the owner declined the repair"
    />
  );
}

const NOTHING_TRIED = { proved: {}, handedBackSo: '' } as const;

function FunctionFields({
  steps,
  allAtOnce,
}: {
  readonly steps: readonly ProofStep[];
  readonly allAtOnce: boolean;
}) {
  return (
    <Stack spacing={0.5}>
      {allAtOnce && <UnlessOneFails steps={steps} />}
      <setFunctions.ProofList name="proved" steps={steps} wanted />
      <IfItFails fields={setFunctions} />
    </Stack>
  );
}

/** Said again once it was mended: a new proof beside the one that failed. */
function OnceMore({ failed, children }: { readonly failed: boolean; readonly children: ReactNode }) {
  return failed ? children : null;
}

/** What of the functions of this watch works. */
export function FunctionsCard() {
  const { state, book, resource } = useJob();
  const { facts, calibre } = state;
  const steps = proofSteps(state, book);
  const asks = calibre === null ? seenMovement(state, book).asksToProve : [];
  const failed = failedProofs({ functions: facts.functions, outside: null }).some(
    ({ handedBackSo }) => handedBackSo === '',
  );
  const fields = <FunctionFields steps={steps} allAtOnce={facts.functions === null} />;
  return (
    <>
      <FactCard
        kind="set.functions"
        title="Functions of this movement"
        recorded={facts.functions}
        defaults={NOTHING_TRIED}
        hint={
          <>
            {asks.length > 0 && (
              <Typography color="text.secondary">
                Not in the book and not recorded yet: {asks.join(', ')}.{' '}
                <Link to={`/jobs/${resource.job.id}/identify`}>Record what you see</Link>. The checks then
                follow it.
              </Typography>
            )}
            <Before entry={facts.functions ? null : (facts.beforeClosing?.functions ?? null)} />
          </>
        }
      >
        {fields}
      </FactCard>
      <OnceMore failed={failed}>
        <FactCard
          kind="set.functions"
          title="Functions, checked again"
          recorded={null}
          defaults={NOTHING_TRIED}
        >
          <FunctionFields steps={steps} allAtOnce={false} />
        </FactCard>
      </OnceMore>
    </>
  );
}

const OUTSIDE_HOW: Readonly<Record<Outside, string>> = {
  'crown in every position': 'Pulls, turns and pushes home; a screwed crown screws down.',
  pushers: 'Each clicks and comes back by itself.',
  bezel: 'Turns as it should and no other way.',
  'bracelet seated, gentle pull': 'Bars seated on both sides, pins flush; a gentle pull.',
};
const OUTSIDE_STEPS = OUTSIDE.map((what) => ({ what, how: OUTSIDE_HOW[what], because: null }));

/** Crown, pushers, bezel and bracelet, after the closing. */
export function OutsideCard({ wanted }: { readonly wanted: boolean }) {
  const { facts } = useJob().state;
  const failed = failedProofs({ functions: null, outside: facts.outside }).some(
    ({ handedBackSo }) => handedBackSo === '',
  );
  const fields = (asked: boolean) => (
    <Stack spacing={0.5}>
      <setOutside.ProofList name="proved" steps={OUTSIDE_STEPS} wanted={asked} />
      <IfItFails fields={setOutside} />
    </Stack>
  );
  return (
    <>
      <FactCard
        kind="set.outside"
        title="Crown, bezel and bracelet"
        recorded={facts.outside}
        defaults={NOTHING_TRIED}
        hint={<Before entry={facts.outside ? null : (facts.beforeClosing?.outside ?? null)} />}
      >
        {fields(wanted)}
      </FactCard>
      <OnceMore failed={failed}>
        <FactCard
          kind="set.outside"
          title="Crown, bezel and bracelet, checked again"
          recorded={null}
          defaults={NOTHING_TRIED}
        >
          {fields(true)}
        </FactCard>
      </OnceMore>
    </>
  );
}
