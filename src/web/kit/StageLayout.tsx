import { Box, Stack, Typography } from '@mui/material';
import type { ReactNode } from 'react';
import { colours } from './theme';

interface Props {
  readonly mat: ReactNode;
  readonly lamp: ReactNode;
}

/** The mat and the lamp of a stage, side by side; on a narrow screen the lamp comes first, since it is the answer. */
export function StageLayout({ mat, lamp }: Props) {
  return (
    <Box
      sx={{
        display: 'grid',
        gap: 2,
        alignItems: 'start',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) 290px', lg: 'minmax(0, 1fr) 340px' },
      }}
    >
      <Stack spacing={1.5} sx={{ minWidth: 0, order: { xs: 2, md: 1 } }}>
        {mat}
      </Stack>
      <Box
        component="aside"
        aria-label="Lamp"
        // It may be longer than the screen: then it scrolls, by keyboard too.
        tabIndex={0}
        sx={{
          order: { xs: 1, md: 2 },
          bgcolor: colours.glow,
          border: `1.5px solid ${colours.soot}`,
          borderRadius: 1.5,
          p: 2,
          position: { md: 'sticky' },
          top: { md: 16 },
          maxHeight: { md: 'calc(100dvh - 96px)' },
          overflowY: { md: 'auto' },
        }}
      >
        <Typography variant="h3" component="h2" sx={{ mb: 1 }}>
          Lamp
        </Typography>
        <Stack spacing={1.5}>{lamp}</Stack>
      </Box>
    </Box>
  );
}
