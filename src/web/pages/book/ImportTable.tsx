import {
  Alert,
  Box,
  Button,
  LinearProgress,
  Paper,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableRow,
  Typography,
} from '@mui/material';
import { useState } from 'react';
import { mutate } from 'swr';
import type { ImportNews, ImportReport } from '../../../contract';
import { useBench } from '../../api/bench';
import { HeadRow } from '../../kit/HeadRow';
import { FileButton } from '../../kit/FileButton';
import { failedInWords, sendLines } from '../../api/http';

const SHOWN = 200;

/** A table of the book from a CSV file: first what it would change, then the change. */
export function ImportTable({ table }: { readonly table: string }) {
  const { technicianId } = useBench();
  const [file, setFile] = useState<File | null>(null);
  const [progress, setProgress] = useState<{ readonly done: number; readonly of: number } | null>(null);
  const [report, setReport] = useState<ImportReport | null>(null);
  const [failed, setFailed] = useState<string | null>(null);

  const send = async (from: File, dryRun: 'yes' | 'no'): Promise<void> => {
    setFailed(null);
    setReport(null);
    setProgress({ done: 0, of: 1 });
    try {
      await sendLines<ImportNews>(
        `/api/catalogue/tables/${table}?technicianId=${technicianId ?? ''}&dryRun=${dryRun}`,
        from,
        'text/csv',
        (news) => ('report' in news ? setReport(news.report) : setProgress(news.progress)),
      );
      if (dryRun === 'no') await mutate('/api/shop');
    } catch (error) {
      setFailed(failedInWords(error, 'nothing was changed.'));
    } finally {
      setProgress(null);
    }
  };

  return (
    <Paper component="section" aria-label={`Import ${table}`} sx={{ p: 2 }}>
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center', flexWrap: 'wrap', rowGap: 1 }}>
        <Typography sx={{ flexGrow: 1, fontWeight: 700 }}>{table}.csv</Typography>
        <Button href={`/api/catalogue/tables/${table}.csv`}>Export</Button>
        <FileButton
          label={`CSV file for ${table}`}
          accept=".csv,text/csv"
          disabled={technicianId === null}
          onFiles={([picked]) => {
            if (!picked) return;
            setFile(picked);
            void send(picked, 'yes');
          }}
        >
          Import
        </FileButton>
      </Stack>
      {progress && (
        <LinearProgress
          variant="determinate"
          value={progress.of === 0 ? 100 : (100 * progress.done) / progress.of}
          aria-label={`Reading ${table}, ${progress.done} of ${progress.of} lines`}
        />
      )}
      {failed && <Alert severity="error">{failed}</Alert>}
      {report && <Report report={report} />}
      {report && report.dryRun && report.errors.length === 0 && file && (
        <Button
          variant="contained"
          sx={{ mt: 1 }}
          disabled={report.added + report.changed === 0}
          onClick={() => void send(file, 'no')}
        >
          Apply changes
        </Button>
      )}
    </Paper>
  );
}

function Report({ report }: { readonly report: ImportReport }) {
  const { errors, added, changed, same, dryRun, applied, changes } = report;
  if (errors.length > 0) {
    return (
      <>
        <Alert severity="error" sx={{ mt: 1 }}>
          Nothing was changed: {report.linesWrong} of {report.lines} lines have errors.
        </Alert>
        <Box sx={{ maxHeight: 320, overflow: 'auto' }} tabIndex={0} role="region" aria-label="Bad lines">
          <Table size="small">
            <HeadRow heads={['Line', 'Column', 'Problem']} />
            <TableBody>
              {errors.map((error, index) => (
                <TableRow key={index}>
                  <TableCell>{error.line}</TableCell>
                  <TableCell>{error.column ?? ''}</TableCell>
                  <TableCell>{error.reason}</TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
          {report.errorsFound > errors.length && (
            <Typography variant="body2">and {report.errorsFound - errors.length} more places</Typography>
          )}
        </Box>
      </>
    );
  }
  return (
    <>
      <Alert severity={applied ? 'success' : 'info'} sx={{ mt: 1 }}>
        {dryRun ? 'To add:' : 'Added:'} {added}, {dryRun ? 'to change' : 'changed'}: {changed}, unchanged:{' '}
        {same}.
      </Alert>
      {changes.slice(0, SHOWN).map(({ id, fields }) => (
        <Typography key={id} variant="body2">
          {id}: {fields.join(', ')}
        </Typography>
      ))}
      {added + changed > SHOWN && <Typography variant="body2">and {added + changed - SHOWN} more</Typography>}
    </>
  );
}
