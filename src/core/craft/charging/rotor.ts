import { figure, type Judged, invalidFigures } from '../judgement';

/** Whether figures already leave out what the movement uses while it is wound. */
export const FIGURES_ARE = ['net of its running', 'gross'] as const;

/** What the book has of charging a movement by its rotor: hours of running gained; null where it is silent. */
export interface RotorFigures {
  readonly perHourWornH: number | null;
  readonly perThousandTurnsH: number | null;
  readonly figuresAre: (typeof FIGURES_ARE)[number];
}

/** No rotor gains more, hours of running. */
const MOST_GAIN_H = 1000;

/** No winder turns more often in an hour. Ours. */
export const MOST_WINDER_TURNS = 5000;

/** From flat: how long it is worn, or how many turns a winder makes, until a share of full. */
export interface WoundTo {
  readonly mark: 'holds a day' | 'hand back' | 'full';
  readonly share: number;
  readonly wornH: number | null;
  readonly turns: number | null;
  readonly winderH: number | null;
}

export type RotorPlan = Judged<'charges' | 'never full' | 'not known' | 'refused'> & {
  readonly marks: readonly WoundTo[];
};

function impossibleFigures(
  figures: RotorFigures,
  reserveDays: number,
  handBackShare: number,
): readonly { readonly reason: string }[] {
  return invalidFigures([
    {
      path: 'perHourWornH',
      what: 'Gain per hour worn',
      value: figures.perHourWornH,
      unit: 'h',
      from: 0,
      to: MOST_GAIN_H,
    },
    {
      path: 'perThousandTurnsH',
      what: 'Gain per thousand turns',
      value: figures.perThousandTurnsH,
      unit: 'h',
      from: 0,
      to: MOST_GAIN_H,
    },
    {
      path: 'reserveDays',
      what: 'Running time on a full charge',
      value: reserveDays,
      unit: 'days',
      over: 0,
      to: 4000,
    },
    {
      path: 'handBackShare',
      what: 'The charge it is handed back with',
      value: handBackShare,
      unit: '',
      over: 0,
      to: 1,
    },
  ]);
}

/**
 * How long a rotor-charged watch is worn, or lies on a winder, until it holds a day, can be handed back and is full, from a
 * charge in percent of full. Gross figures lose an hour of running for every hour it runs meanwhile. Hours; turns. Source:
 * figures of the book.
 *
 * @example
 * rotorPlan({ perHourWornH: 5, perThousandTurnsH: null, figuresAre: 'gross' }, 100, 0, 0.8, 600).marks[2] // { mark: 'full', wornH: 600, winderH: null }
 */
export function rotorPlan(
  figures: RotorFigures | null,
  reserveDays: number,
  startPercent: number,
  handBackShare: number,
  turnsAnHour: number,
): RotorPlan {
  const none = { marks: [], working: [] };
  if (!(startPercent >= 0 && startPercent <= 100))
    return { ...none, verdict: 'refused', reasons: ['Charge: 0 to 100 % of full.'] };
  if (!(turnsAnHour > 0 && turnsAnHour <= MOST_WINDER_TURNS))
    return { ...none, verdict: 'refused', reasons: ['The winder: over 0 to 5,000 turns an hour.'] };
  if (
    figures === null ||
    !(reserveDays > 0) ||
    (figures.perHourWornH === null && figures.perThousandTurnsH === null)
  )
    return {
      ...none,
      verdict: 'not known',
      reasons: ['The book has no gain for wearing or winding. Enter it in the book.'],
    };
  const wrong = impossibleFigures(figures, reserveDays, handBackShare);
  if (wrong.length > 0) return { ...none, verdict: 'refused', reasons: wrong.map(({ reason }) => reason) };
  const used = figures.figuresAre === 'gross' ? 1 : 0;
  const wornGain = figures.perHourWornH === null ? null : figures.perHourWornH - used;
  const winderGain =
    figures.perThousandTurnsH === null ? null : (figures.perThousandTurnsH * turnsAnHour) / 1000 - used;
  const reserveH = reserveDays * 24;
  const hours = (share: number, gain: number | null): number | null =>
    gain === null || gain <= 0 ? null : Math.max(0, ((share - startPercent / 100) * reserveH) / gain);
  const marks = (
    [
      ['holds a day', Math.min(1, 1 / reserveDays)],
      ['hand back', handBackShare],
      ['full', 1],
    ] as const
  ).map(([mark, share]): WoundTo => {
    const winderH = hours(share, winderGain);
    return {
      mark,
      share,
      wornH: hours(share, wornGain),
      turns: winderH === null ? null : winderH * turnsAnHour,
      winderH,
    };
  });
  const never = marks.every(({ wornH, winderH }) => wornH === null && winderH === null);
  return {
    verdict: never ? 'never full' : 'charges',
    marks,
    reasons: [
      ...(never ? ['It uses as much as it gains. Worn or wound like this, it never gets full.'] : []),
      ...(figures.figuresAre === 'gross'
        ? ['The book’s figures are gross. The watch’s own use is subtracted.']
        : []),
    ],
    working: [
      {
        what: 'hours until full',
        rule: '(share wanted − share there) × days it runs when full × 24 ÷ hours of running gained an hour',
        figures: `${figure(reserveH, 0)} h of running; worn ${wornGain === null ? 'not known' : `${figure(wornGain, 2)} h an hour`}, on the winder ${winderGain === null ? 'not known' : `${figure(winderGain, 2)} h an hour at ${figure(turnsAnHour, 0)} turns`}`,
        source: 'the book',
      },
    ],
  };
}
