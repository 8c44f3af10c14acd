import {
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogContentText,
  DialogTitle,
  Paper,
  Stack,
  Typography,
} from '@mui/material';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { mutate } from 'swr';
import type { CustomerResource } from '../../contract';
import { localDayInWords } from '../../core/craft/time';
import { useBench } from '../api/bench';
import { failedInWords, isNotFound, postJson, saidInWords } from '../api/http';
import { useCustomer, useShop } from '../api/resources';
import { Loading } from '../kit/Loading';
import { LampAnswer } from '../kit/Lamp';
import { StageLayout } from '../kit/StageLayout';
import { NoSuchPage } from './NoSuchPage';
import { OwnerDetailsCard } from './OwnerDetailsCard';

function Erase({ id }: { readonly id: string }) {
  const bench = useBench();
  const [asking, setAsking] = useState(false);
  const { enqueueSnackbar } = useSnackbar();
  const erase = async (): Promise<void> => {
    setAsking(false);
    try {
      await postJson<CustomerResource>(`/api/customers/${id}/erase`, { technicianId: bench.technicianId });
      await mutate(`/api/customers/${id}`);
    } catch (error) {
      enqueueSnackbar(failedInWords(error, 'nothing was erased.'), {
        variant: 'error',
      });
    }
  };
  return (
    <>
      <Button
        color="error"
        variant="outlined"
        onClick={() => setAsking(true)}
        disabled={bench.technicianId === null}
        sx={{ alignSelf: 'flex-start' }}
      >
        Erase this person
      </Button>
      <Dialog
        open={asking}
        onClose={() => setAsking(false)}
        aria-labelledby="erase-title"
        fullWidth
        maxWidth="xs"
      >
        <DialogTitle id="erase-title">Erase this person?</DialogTitle>
        <DialogContent>
          <DialogContentText>
            Name, phone and e-mail are deleted for good, from the jobs, the search and the database. The
            records of the watches stay. This cannot be undone.
          </DialogContentText>
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setAsking(false)} autoFocus>
            Cancel
          </Button>
          <Button color="error" variant="contained" onClick={() => void erase()}>
            Erase
          </Button>
        </DialogActions>
      </Dialog>
    </>
  );
}

/** One owner: how to reach them, and every watch they brought. */
export default function CustomerPage() {
  const { customerId = '' } = useParams();
  const { data, error } = useCustomer(customerId);
  const { data: shop } = useShop();
  if (isNotFound(error)) return <NoSuchPage what="owner" />;
  if (!data && saidInWords(error) !== null) return <Typography role="alert">{saidInWords(error)}</Typography>;
  if (!data || !shop) return <Loading what="the owner" />;
  const { customer, erasedAt, jobs } = data;
  const open = jobs.filter((job) => job.signedBy === null);
  return (
    <StageLayout
      mat={
        <>
          <Typography variant="h1">{erasedAt ? 'Erased owner' : customer.name}</Typography>
          {erasedAt === null && <OwnerDetailsCard owner={data} shop={shop} />}
          <Paper component="section" aria-label="Jobs" sx={{ p: 2 }}>
            <Typography variant="h2">Jobs, the newest first</Typography>
            <Stack component="ul" spacing={1} sx={{ listStyle: 'none', p: 0, m: 0, mt: 1 }}>
              {jobs.map((job) => (
                <Typography component="li" key={job.id}>
                  <Link to={`/jobs/${job.id}`}>{job.ticket}</Link> {job.watch},{' '}
                  {localDayInWords(job.receivedAt, shop.shop.zone)}
                  {job.service ? `, ${job.service}` : ''}:{' '}
                  {job.signedBy ? `signed ${job.signedBy}` : `waiting for ${job.waitsFor}`}
                </Typography>
              ))}
            </Stack>
          </Paper>
          <Button href={`/api/customers/${customer.id}/jobs.csv`} sx={{ alignSelf: 'flex-start' }}>
            Jobs as CSV
          </Button>
          {erasedAt === null && <Erase id={customer.id} />}
        </>
      }
      lamp={
        <LampAnswer
          question={erasedAt ? 'Erased' : 'In the shop now'}
          tone={open.length > 0 ? 'care' : 'good'}
          answer={
            erasedAt
              ? localDayInWords(erasedAt, shop.shop.zone)
              : open.length === 0
                ? 'Nothing'
                : `${open.length} of ${jobs.length}`
          }
          reasons={open.map((job) => `${job.ticket}: waiting for ${job.waitsFor}.`)}
        />
      }
    />
  );
}
