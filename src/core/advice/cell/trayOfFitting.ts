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

/** A step of a well’s guide that is ticked. */
export interface TickedStep extends Pick<FittingStep, 'id' | 'off' | 'back'> {
  readonly well: string;
}

/**
 * What ticking these steps of one or several guides lays on the tray, and what it takes back from there. What came off at one
 * well and goes back once, at another, is found by its step. Never throws.
 */
export function trayOfFitting(
  steps: readonly TickedStep[],
  facts: Pick<Readonly<JobFacts>, 'parts'>,
): OnTheTray {
  const parts = [...facts.parts.values()];
  const known = new Set(parts.map(({ off }) => off.payload.step));
  const laid = steps.flatMap(({ id, off, well }) =>
    known.has(trayStep(well, id)) ? [] : off.map((part) => ({ part, step: trayStep(well, id) })),
  );
  const lies = [...known, ...laid.map(({ step }) => step)];
  const back = new Set(
    steps.flatMap(({ back: from, well }) => {
      if (from === null) return [];
      const own = trayStep(well, from);
      return lies.includes(own) ? [own] : lies.filter((step) => step.endsWith(`:${from}`));
    }),
  );
  return {
    laid: laid.map(({ part, step }) => ({
      part: { ...part, serves: serves(part.part), step },
      backToo: back.has(step),
    })),
    returned: parts
      .filter(({ off, settled }) => settled === null && back.has(off.payload.step))
      .map(({ off }) => ({ partEntryId: off.id, outcome: 'back in place', note: '' })),
  };
}
