import { Stack } from '@mui/material';
import type { ReactNode } from 'react';
import { StageLayout } from '../kit/StageLayout';
import { BENCH_MAT } from '../kit/theme';
import { AlsoToRecord } from './AlsoToRecord';
import { StandingFacts } from './StandingFacts';
import { StandingProvider } from './standing';

interface Props {
  /** The forms of what is wanted, the next first. */
  readonly mat: ReactNode;
  readonly lamp: ReactNode;
  /** What is there to be read or looked at, below all that is recorded. */
  readonly below?: ReactNode;
}

/** A stage at the bench: what is wanted first, then what else may be recorded and what stands; the lamp beside it. */
export function BenchLayout({ mat, lamp, below }: Props) {
  return (
    <StandingProvider>
      <StageLayout
        mat={
          <>
            <Stack className={BENCH_MAT} spacing={1.5}>
              {mat}
            </Stack>
            <AlsoToRecord />
            <StandingFacts />
            {below}
          </>
        }
        lamp={lamp}
      />
    </StandingProvider>
  );
}
