import { Alert, Button, Stack, Typography } from '@mui/material';
import { capital } from '../../core/craft/judgement';
import { entryInWords } from '../../core/logbook';
import { RecordedBy } from './RecordedBy';
import { useJob } from './JobContext';

/** Two corrections of one entry: a person says which stands; the others are withdrawn, not lost. */
export function Conflicts() {
  const { state, record, technician } = useJob();
  return state.conflicts.map(({ target, rivals }) => (
    <Alert
      key={target.id}
      severity="warning"
      icon={false}
      sx={{ mt: 2, border: 1 }}
      role="region"
      aria-label="Conflict to settle"
    >
      <Typography sx={{ fontWeight: 700 }}>
        {rivals.length} corrections of “{entryInWords(target)}” disagree. Which one is right?
      </Typography>
      <Stack spacing={1} sx={{ mt: 1 }}>
        {rivals.map((rival) => (
          <Stack key={rival.id} direction="row" spacing={2} sx={{ alignItems: 'center' }}>
            <Button
              variant="outlined"
              disabled={technician === null}
              onClick={() => {
                for (const other of rivals) {
                  if (other.id !== rival.id)
                    void record(
                      'logbook.withdrawn',
                      { reason: `chosen: ${entryInWords(rival)}` },
                      { withdraws: other.id },
                    );
                }
              }}
            >
              {capital(entryInWords(rival))} is right
            </Button>
            <RecordedBy entry={rival} />
          </Stack>
        ))}
      </Stack>
    </Alert>
  ));
}
