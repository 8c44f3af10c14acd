import { Button, Paper, Typography } from '@mui/material';
import { useState } from 'react';
import type { KeptTakenIn, KeptWrites as Kept } from '../../contract';
import { localMoment } from '../../core/craft/time';
import { failedInWords, postJson } from '../api/http';
import { useBench } from '../api/bench';
import { useKeptWrites, useShop } from '../api/resources';
import { Caution } from '../kit/Lamp';

const recordsIn = ({ writes }: Kept): string => `${writes} ${writes === 1 ? 'record' : 'records'}`;

/** What became of kept writes, with each one that was refused. */
function TakenIn({ taken, zone }: { readonly taken: KeptTakenIn; readonly zone: string }) {
  return (
    <>
      <Typography role="status">
        {taken.recorded} added, {taken.heldBefore} already in the database, {taken.refused.length} refused.
      </Typography>
      {taken.refused.map(({ atUtc, what, reason }, index) => (
        <Typography key={index} variant="body2">
          {localMoment(atUtc, zone)}, {what}. {reason}
        </Typography>
      ))}
      {taken.refused.length > 0 && (
        <Typography>Record by hand what still applies. Then discard the refused records.</Typography>
      )}
    </>
  );
}

/** Writes that were acknowledged and are not in the database: a copy was put back, or it was lost. */
export default function KeptWrites() {
  const { data: kept = [], mutate } = useKeptWrites();
  const { data: shop } = useShop();
  const { technicianId } = useBench();
  const [taken, setTaken] = useState<KeptTakenIn | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  if (!shop || (kept.length === 0 && taken === null)) return null;
  const { zone } = shop.shop;
  const ask = async (path: string, then: (said: KeptTakenIn) => KeptTakenIn | null): Promise<void> => {
    setFailed(null);
    try {
      setTaken(then(await postJson<KeptTakenIn>(path, {})));
    } catch (error) {
      setFailed(failedInWords(error, 'the records cannot be added now.'));
    }
    await mutate();
  };
  const takeIn = ({ name }: Kept): Promise<void> => ask(`/api/kept/${name}/take-in`, (said) => said);
  const discard = ({ name }: Kept): Promise<void> => ask(`/api/kept/${name}/discard`, () => null);
  return (
    <Paper component="section" aria-label="Records not in the database" sx={{ p: 2 }}>
      <Typography variant="h2">Records not in the database</Typography>
      {kept.length > 0 && (
        <Typography>
          The database was restored from a copy, or lost. These records were confirmed before that and are
          kept in the data folder. Add them before you record anything new, so that every watch keeps its
          ticket.
        </Typography>
      )}
      {kept.map((each) => (
        <Typography key={each.name} component="div" sx={{ mt: 1 }}>
          {recordsIn(each)} of {localMoment(each.fromUtc, zone)}
          {each.writes > 1 && ` to ${localMoment(each.untilUtc, zone)}`}{' '}
          <Button
            size="small"
            variant="outlined"
            disabled={technicianId === null}
            onClick={() => void takeIn(each)}
          >
            Add {recordsIn(each)}
          </Button>{' '}
          {taken !== null && (
            <Button size="small" disabled={technicianId === null} onClick={() => void discard(each)}>
              Discard {recordsIn(each)}
            </Button>
          )}
        </Typography>
      ))}
      {failed !== null && <Caution grave>{failed}</Caution>}
      {taken !== null && <TakenIn taken={taken} zone={zone} />}
    </Paper>
  );
}
