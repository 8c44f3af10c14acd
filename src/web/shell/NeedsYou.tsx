import { Button } from '@mui/material';
import { lazy, Suspense, useState } from 'react';
import { useWaiting } from '../api/waiting';

const NeedsYouDialog = lazy(() => import('./NeedsYouDialog'));

/** Entries the server refused: each with why and what to do. They stay until a person settles them. */
export function NeedsYou() {
  const refused = useWaiting().entries.filter((entry) => entry.refused !== null);
  const [open, setOpen] = useState(false);
  if (refused.length === 0) return null;
  return (
    <>
      <Button color="error" variant="outlined" onClick={() => setOpen(true)}>
        ■ {refused.length} {refused.length === 1 ? 'needs' : 'need'} a decision
      </Button>
      {open && (
        <Suspense>
          <NeedsYouDialog refused={refused} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
