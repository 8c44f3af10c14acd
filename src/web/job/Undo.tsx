import { Box, Button } from '@mui/material';
import { useState } from 'react';
import { useSnackbar } from 'notistack';
import { entryInWords, undoable } from '../../core/logbook';
import { useKey } from '../kit/keys/KeysProvider';
import { useJob } from './JobContext';
import { ReasonDialog } from '../kit/ReasonDialog';

/** Offers to withdraw this technician's own last entry of the job, names it, and asks. */
export function Undo() {
  const { state, technician, record } = useJob();
  const [asking, setAsking] = useState(false);
  const { enqueueSnackbar } = useSnackbar();
  const last = technician ? undoable(state, technician.id) : null;
  const ask = (): void => {
    if (last) setAsking(true);
    else enqueueSnackbar('You have no record here to undo.');
  };
  useKey('u', 'Undo your last entry', ask);
  return (
    <>
      <Button onClick={ask} disabled={last === null}>
        <Box
          component="span"
          sx={{ overflow: 'hidden', textOverflow: 'ellipsis', maxWidth: 'min(440px, 60vw)' }}
        >
          Undo{last ? `: ${entryInWords(last)}` : ''}
        </Box>
      </Button>
      {asking && last && (
        <ReasonDialog
          title="Undo?"
          text={`“${entryInWords(last)}” will be withdrawn. It stays in the logbook, crossed out.`}
          startReason="recorded by mistake"
          action="Undo"
          onClose={() => setAsking(false)}
          onReason={(reason) => {
            setAsking(false);
            void record('logbook.withdrawn', { reason }, { withdraws: last.id });
          }}
        />
      )}
    </>
  );
}
