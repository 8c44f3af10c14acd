import { Paper, Typography } from '@mui/material';
import type { ReactNode } from 'react';

/** One part of a page, named by its title. */
export function Section({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Paper component="section" aria-label={title} sx={{ p: 2 }}>
      <Typography variant="h3" component="h2" sx={{ mb: 1 }}>
        {title}
      </Typography>
      {children}
    </Paper>
  );
}
