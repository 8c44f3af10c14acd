import { Button } from '@mui/material';
import { useState } from 'react';
import { STAGE_WORDS, type StageId } from '../../core/craft/policy';
import { useJob } from './JobContext';
import { ReasonDialog } from '../kit/ReasonDialog';

/** Leaves out a stage the service asks for, with the reason on record. */
export function SkipStage({ stage }: { readonly stage: StageId }) {
  const { record, technician } = useJob();
  const [asking, setAsking] = useState(false);
  return (
    <>
      <Button onClick={() => setAsking(true)} disabled={technician === null}>
        Skip this stage
      </Button>
      {asking && (
        <ReasonDialog
          title={`Skip ${STAGE_WORDS[stage]}?`}
          text="The service includes this stage. The gap and your reason stay visible on the wick and on the record."
          startReason=""
          action="Skip stage"
          onClose={() => setAsking(false)}
          onReason={(reason) => {
            setAsking(false);
            void record('logbook.stage-skipped', { stage, reason });
          }}
        />
      )}
    </>
  );
}
