import type { FittingStep } from '../../craft/fitting';
import { serves } from '../../craft/parts';
import type { JobFacts, Payloads } from '../../logbook';

/** Longest part of a well's name that still leaves room for the step, in what a tray entry may hold. */
const WELL_CHARACTERS = 12;

/** The step of a guide as a part on the tray names it. */
const trayStep = (well: string, id: string): string => `${well.slice(0, WELL_CHARACTERS)}:${id}`;

interface OnTheTray {
  /** What these steps lay on the tray and nobody laid there yet. */
  readonly laid: readonly {
    readonly part: Payloads['open.part'];
    /** A later one of these steps puts it back. */
    readonly backToo: boolean;
  }[];
  /** What these steps put back, that lies there still. */
  readonly returned: readonly Payloads['open.part-settled'][];
}

/** What ticking these steps of a well’s guide lays on the tray, and what it takes back from there. Never throws. */
export function trayOfFitting(
  steps: readonly FittingStep[],
  well: string,
  facts: Pick<Readonly<JobFacts>, 'parts'>,
): OnTheTray {
  const parts = [...facts.parts.values()];
  const known = new Set(parts.map(({ off }) => off.payload.step));
  const back = new Set(steps.flatMap((step) => (step.back === null ? [] : [trayStep(well, step.back)])));
  return {
    laid: steps.flatMap(({ id, off }) =>
      known.has(trayStep(well, id))
        ? []
        : off.map((part) => ({
            part: { ...part, serves: serves(part.part), step: trayStep(well, id) },
            backToo: back.has(trayStep(well, id)),
          })),
    ),
    returned: parts
      .filter(({ off, settled }) => settled === null && back.has(off.payload.step))
      .map(({ off }) => ({ partEntryId: off.id, outcome: 'back in place', note: '' })),
  };
}
