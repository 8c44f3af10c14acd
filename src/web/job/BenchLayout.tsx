import { Stack } from '@mui/material';
import { type ReactNode, useEffect } from 'react';
import { useLocation } from 'react-router';
import { focusRequired } from '../kit/keys/required';
import { StageLayout } from '../kit/StageLayout';
import { BENCH_MAT } from '../kit/theme';
import { AlsoToRecord } from './AlsoToRecord';
import { Failures } from './Failures';
import { RecordedFacts } from './RecordedFacts';
import { RecordedLinesProvider } from './recordedLines';

/** Said by what leads on to a stage: the focus goes to what is wanted there. */
export const GO_ON = { goOn: true } as const;

interface Props {
  /** The forms of what is wanted, the next first. */
  readonly mat: ReactNode;
  readonly lamp: ReactNode;
  /** What is there to be read or looked at, below all that is recorded. */
  readonly below?: ReactNode;
}

/** A stage at the bench: what is wanted first, then what else may be recorded and what stands; the lamp beside it. */
export function BenchLayout({ mat, lamp, below }: Props) {
  const { state } = useLocation() as { readonly state: typeof GO_ON | null };
  const goesOn = state?.goOn === true;
  useEffect(() => {
    // Another stage begins at its top, where what is wanted stands.
    scrollTo(0, 0);
    if (goesOn) focusRequired();
  }, [goesOn]);
  return (
    <RecordedLinesProvider>
      <StageLayout
        mat={
          <>
            <Stack className={BENCH_MAT} spacing={1.5}>
              {mat}
            </Stack>
            <AlsoToRecord />
            <RecordedFacts />
            {below}
          </>
        }
        lamp={
          <>
            <Failures />
            {lamp}
          </>
        }
      />
    </RecordedLinesProvider>
  );
}
