import { Box } from '@mui/material';
import type { ReactNode } from 'react';

/** Fields two beside each other, one under the other where there is no room. */
export function Columns({ children }: { readonly children: ReactNode }) {
  return (
    <Box
      sx={{
        display: 'grid',
        gap: 1.5,
        gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' },
        alignItems: 'start',
      }}
    >
      {children}
    </Box>
  );
}
