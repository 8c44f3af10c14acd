import { Alert, Stack, Typography } from '@mui/material';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { mutate } from 'swr';
import type { JobImported } from '../../../contract';
import { failedInWords, sendFile } from '../../api/http';
import { FileButton } from '../../kit/FileButton';

/** A job or visit that was saved at another counter: taken in whole, and never twice. */
export function FromElsewhere() {
  const navigate = useNavigate();
  const [said, setSaid] = useState<string | null>(null);
  const take = async (file: File): Promise<void> => {
    setSaid(null);
    try {
      const imported = await sendFile<JobImported[]>('/api/jobs/import', file);
      await mutate('/api/rack');
      const [first] = imported;
      if (first) await navigate(`/jobs/${first.jobId}`);
    } catch (error) {
      setSaid(`${file.name}: ${failedInWords(error, 'nothing was imported.')}`);
    }
  };
  return (
    <Stack direction="row" spacing={1} sx={{ alignItems: 'center', flexWrap: 'wrap', rowGap: 1 }}>
      <Typography color="text.secondary">Saved at another counter?</Typography>
      <FileButton
        label="Job file from another counter"
        accept=".json,application/json"
        onFiles={([file]) => {
          if (file) void take(file);
        }}
      >
        Import job file
      </FileButton>
      {said && <Alert severity="error">{said}</Alert>}
    </Stack>
  );
}
