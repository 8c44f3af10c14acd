import { type ReactNode, useMemo } from 'react';
import { Link } from 'react-router';
import { Box, Button, Paper, Stack, Typography } from '@mui/material';
import {
  FITTING_PHASES,
  type FittingGuide,
  type FittingPhase,
  type FittingStep,
} from '../../../core/craft/fitting';
import { partInWords } from '../../../core/craft/parts';
import { guidesOf, trayOfFitting } from '../../../core/advice/cell';
import { wellKey, type WellState } from '../../../core/logbook';
import type { Calibre, Well } from '../../../core/craft/movements';
import { useKey } from '../../kit/keys/KeysProvider';
import { CalibreFigure } from '../../figures/CalibreFigure';
import { useJob } from '../../job/JobContext';
import { FoldedSteps, StepList } from '../../job/StepList';
import { wellTitle } from './wells';
const PHASE: Readonly<Record<FittingPhase, string>> = {
  before: 'Before',
  out: 'Out',
  between: 'Empty well',
  in: 'In',
  after: 'After',
};

/** Records steps of guides as done, and what they lay on the tray or take from it. */
function useTick(): (
  which: readonly { readonly well: WellState; readonly steps: readonly FittingStep[] }[],
) => Promise<void> {
  const { state, record } = useJob();
  return async (which) => {
    const ticked = which.filter(({ steps }) => steps.length > 0);
    for (const { well, steps } of ticked)
      await record(
        'cell.steps',
        { steps: steps.map(({ id }) => id), asShown: steps.length > 1 },
        { well: wellKey(well) },
      );
    const tray = trayOfFitting(
      ticked.flatMap(({ well, steps }) => steps.map((step) => ({ ...step, well: well.name }))),
      state.facts,
    );
    for (const { part, backToo } of tray.laid) {
      const partEntryId = await record('open.part', part);
      if (backToo && partEntryId !== null)
        await record('open.part-settled', { partEntryId, outcome: 'back in place', note: '' });
    }
    for (const part of tray.returned) await record('open.part-settled', part);
  };
}

/** The steps, phase by phase, counted through. */
function Phases({
  steps,
  isDone,
  onDone,
}: {
  readonly steps: readonly FittingStep[];
  readonly isDone: (step: FittingStep) => boolean;
  readonly onDone: (step: FittingStep) => void;
}) {
  return FITTING_PHASES.map((phase) => {
    const own = steps.filter((step) => step.phase === phase);
    const [first] = own;
    return first === undefined ? null : (
      <Box key={phase} sx={{ mb: 1 }}>
        <Typography variant="body2" color="text.secondary" sx={{ pt: 1 }}>
          {PHASE[phase]}
        </Typography>
        <StepList
          from={steps.indexOf(first) + 1}
          steps={own.map((step) => ({
            ...step,
            done: isDone(step),
            note: noteOf(step),
          }))}
          onDone={(id) => own.filter((step) => step.id === id).forEach(onDone)}
        />
      </Box>
    );
  });
}

/** The hand movements out and in for this holder and layout, ticked one by one or all as shown. */
function Guide({
  calibre,
  well,
  place,
  guide: { steps, drawing, asks },
  onAll,
}: {
  /** Null where the movement is not in the book: then there is nothing to draw. */
  readonly calibre: Calibre | null;
  readonly well: WellState;
  readonly place: Well | null;
  readonly guide: FittingGuide;
  /** At the first guide: ticks every step of every guide that is left. Null at a further one. */
  readonly onAll: (() => void) | null;
}) {
  const { state, technician, book, resource } = useJob();
  const tick = useTick();
  const { facts } = state;
  const isDone = (step: FittingStep): boolean => facts.fittingDone.has(`${well.name}:${step.id}`);
  const left = steps.filter((step) => !isDone(step));
  const done = (which: readonly FittingStep[]): Promise<void> => tick([{ well, steps: which }]);
  return (
    <Paper component="section" aria-label={`${wellTitle(well)}fitting guide`} sx={{ p: 2 }}>
      <Stack direction="row" sx={{ alignItems: 'baseline', justifyContent: 'space-between', mb: 0.5 }}>
        <Typography variant="h3" component="h2">
          {wellTitle(well) === '' ? 'Fitting guide' : `Fitting guide, ${well.name}`}
          {place && `: ${place.heldBy}`}
        </Typography>
        <Typography color="text.secondary">
          {steps.length - left.length} of {steps.length} done
        </Typography>
      </Stack>
      <FoldedSteps folded={left.length === 0}>
        <Box sx={{ columnCount: { xs: 1, md: 2 }, columnGap: 2, '& > *': { breakInside: 'avoid' } }}>
          {calibre && place && (
            <CalibreFigure
              calibre={{ ...calibre, wells: [place] }}
              cellDiameterMm={(code) => book.cell(code)?.diameterMm ?? null}
              brace={drawing.brace}
              size={200}
            />
          )}
          {asks.length > 0 && (
            <Typography sx={{ pb: 1 }}>
              Not in the book and not recorded yet: {asks.join(', ')}.{' '}
              <Link to={`/jobs/${resource.job.id}/identify`}>Record what you see</Link>. The guide then
              follows it.
            </Typography>
          )}
          <Phases steps={steps} isDone={isDone} onDone={(step) => void done([step])} />
        </Box>
      </FoldedSteps>
      {onAll && <AllKey onAll={onAll} />}
      {left.length > 0 && (
        <Button
          variant="outlined"
          sx={{ mt: 1 }}
          disabled={technician === null}
          onClick={() => void done(left)}
        >
          All done as shown{onAll && state.wells.length === 1 ? ' (a)' : ''}
        </Button>
      )}
    </Paper>
  );
}

/** What stands small under a step: the book’s own lines, and what it lays on the tray. */
function noteOf({ ofTheBook, off }: FittingStep): string | null {
  const notes = [
    ...(ofTheBook.length > 0 ? [`The book: ${ofTheBook.join(' ')}`] : []),
    ...(off.length > 0 ? [`To the tray: ${off.map(partInWords).join('; ')}.`] : []),
  ];
  return notes.length > 0 ? notes.join(' ') : null;
}

/** A fitting guide for each place the calibre has. */
export function useGuides(): (well: WellState) => ReactNode {
  const { state, context, book } = useJob();
  const tick = useTick();
  const guides = useMemo(
    () => guidesOf(state, book, context.policy.schools),
    [state, book, context.policy.schools],
  );
  const tickAll = (): void =>
    void tick(
      state.wells.map((well) => ({
        well,
        steps: (guides.get(well.name)?.steps ?? []).filter(
          ({ id }) => !state.facts.fittingDone.has(`${well.name}:${id}`),
        ),
      })),
    );
  return (well) => {
    const guide = guides.get(well.name);
    return (
      guide && (
        <Guide
          key={well.name}
          calibre={state.calibre}
          well={well}
          place={well.well}
          guide={guide}
          onAll={well === state.wells[0] ? tickAll : null}
        />
      )
    );
  };
}

function AllKey({ onAll }: { readonly onAll: () => void }) {
  useKey('a', 'All fitting steps done as shown', onAll);
  return null;
}
