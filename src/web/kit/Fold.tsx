import { Box } from '@mui/material';
import { type ReactNode, useState } from 'react';

interface Props {
  readonly summary: ReactNode;
  /** How the line that opens it stands among its neighbours. */
  readonly sx?: object;
  readonly children: ReactNode;
}

/** What is there on demand: nothing of it is drawn before somebody opens it. */
export function Fold({ summary, sx = {}, children }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <Box
      component="details"
      onToggle={(event) => setOpen(event.currentTarget.open)}
      sx={{ '& > summary': { cursor: 'pointer', minHeight: 36, fontWeight: 700, ...sx } }}
    >
      <summary>{summary}</summary>
      {open && children}
    </Box>
  );
}
