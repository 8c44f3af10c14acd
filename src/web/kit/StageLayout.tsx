import { Box, Button, Stack, Typography } from '@mui/material';
import { type ReactNode, useRef } from 'react';
import { KeyCap } from './KeyCap';
import { useKey } from './keys/KeysProvider';
import { colours } from './theme';

interface Props {
  readonly mat: ReactNode;
  readonly lamp: ReactNode;
}

/** The mat and the lamp of a stage, side by side; on a narrow screen the lamp comes first, since it is the answer. */
export function StageLayout({ mat, lamp }: Props) {
  const lampBox = useRef<HTMLElement>(null);
  const openOrClose = (): void => {
    const lines = [...(lampBox.current?.querySelectorAll('details') ?? [])];
    const open = lines.some((line) => !line.open);
    for (const line of lines) line.open = open;
  };
  useKey('l', 'Open or close all of the lamp', openOrClose);
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
        ref={lampBox}
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
          '&:not(:has(details)) .open-all': { display: 'none' },
        }}
      >
        <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center', mb: 0.5 }}>
          <Typography variant="h3" component="h2">
            Lamp
          </Typography>
          <Button
            size="small"
            className="open-all"
            onClick={openOrClose}
            sx={{ gap: 1, '@media (pointer: fine)': { minHeight: 0, py: 0 } }}
          >
            Open all <KeyCap>l</KeyCap>
          </Button>
        </Stack>
        <Stack spacing={1}>{lamp}</Stack>
      </Box>
    </Box>
  );
}
