import { figure, invalidFigures, invalidLengths } from '../judgement';

/** The wall a ring lies against at rest: it is stretched over the inner one, or pushed in against the outer one. */
export const SEATS = ['inner wall', 'outer wall'] as const;
export type Seat = (typeof SEATS)[number];

/** A groove as the caliper and the depth gauge have it, in millimetres. */
export interface Groove {
  readonly innerMm: number;
  readonly outerMm: number;
  /** In the case, without the back on it. */
  readonly depthMm: number;
  /** So far the back enters it when it is home. */
  readonly stepMm: number;
  readonly seat: Seat;
  /** How well depth less step is known, ±. */
  readonly depthWithinMm: number;
}

/** A ring by its size. Of a flat one the section is its thickness. */
export interface RingSize {
  readonly profile: 'round' | 'flat';
  readonly insideMm: number;
  readonly sectionMm: number;
  /** Of a flat ring, across; null for a round one. */
  readonly widthMm: number | null;
  /** How well the section is known, ±. */
  readonly sectionWithinMm: number;
}

/** How well a section or a depth is known where nobody says better, ± mm. Source: usual tolerance of small rings. */
export const USUALLY_WITHIN_MM = 0.03;

/** What is left for the ring between the bottom of the groove and the back that is home, mm. */
export function freeDepthMm({ depthMm, stepMm }: Pick<Groove, 'depthMm' | 'stepMm'>): number {
  return depthMm - stepMm;
}

/** Between the walls, mm. */
export function grooveWidthMm({ innerMm, outerMm }: Pick<Groove, 'innerMm' | 'outerMm'>): number {
  return (outerMm - innerMm) / 2;
}

export interface GrooveProblem {
  readonly path:
    'innerMm' | 'outerMm' | 'depthMm' | 'stepMm' | 'sectionMm' | 'widthMm' | 'heightMm' | 'outsideMm';
  readonly reason: string;
}

const mm = (value: number): string => `${figure(value)} mm`;

/** Which measures of a groove contradict each other; empty where it can be. */
export function grooveContradictions(groove: Groove): readonly GrooveProblem[] {
  const { innerMm, outerMm, depthMm, stepMm } = groove;
  const lengths = [
    ...invalidLengths<GrooveProblem['path']>([
      ['innerMm', 'The groove’s inner diameter', innerMm],
      ['outerMm', 'The groove’s outer diameter', outerMm],
      ['depthMm', 'The groove’s depth', depthMm],
    ]),
    ...invalidFigures<GrooveProblem['path']>([
      { path: 'stepMm', what: 'The step of the back', value: stepMm, unit: 'mm', from: 0 },
    ]),
  ];
  if (lengths.length > 0) return lengths;
  if (outerMm <= innerMm)
    return [
      {
        path: 'outerMm',
        reason: `The groove’s outer diameter, ${mm(outerMm)}, is not over its inner one, ${mm(innerMm)}, so they were probably swapped. Measure both again.`,
      },
    ];
  if (stepMm >= depthMm)
    return [
      {
        path: 'stepMm',
        reason: `The back enters ${mm(stepMm)}, and the groove is ${mm(depthMm)} deep, so no room is left for a ring. Measure step or depth again.`,
      },
    ];
  if (depthMm > innerMm / 2)
    return [
      {
        path: 'depthMm',
        reason: `A groove ${mm(depthMm)} deep and ${mm(innerMm)} across: the depth is more than half the diameter. Measure the depth again.`,
      },
    ];
  return [];
}

/** What contradicts the groove in a ring that somebody measured in it: one of an assortment is simply no, this one cannot be. */
export function measuredRingContradictions(
  ring: Pick<RingSize, 'sectionMm' | 'profile' | 'widthMm'>,
  groove: Groove,
): readonly GrooveProblem[] {
  const lengths = invalidLengths<GrooveProblem['path']>([
    ['sectionMm', 'Ring section', ring.sectionMm],
    ['widthMm', 'Ring width', ring.widthMm],
  ]);
  if (lengths.length > 0) return lengths;
  const wrong = grooveContradictions(groove);
  if (wrong.length > 0) return wrong;
  const free = freeDepthMm(groove);
  const width = grooveWidthMm(groove);
  const across = ring.profile === 'flat' ? (ring.widthMm ?? 0) : ring.sectionMm;
  return [
    ...(ring.sectionMm <= free
      ? [
          {
            path: 'sectionMm' as const,
            reason: `The ring is ${mm(ring.sectionMm)} thick and its groove leaves ${mm(free)}, so the back would never touch it. Measure section or depth again.`,
          },
        ]
      : []),
    ...(across > width
      ? [
          {
            path: ring.profile === 'flat' ? ('widthMm' as const) : ('sectionMm' as const),
            reason: `The ring is ${mm(across)} wide and its groove ${mm(width)}, so it cannot have been in this groove. Measure one of them again.`,
          },
        ]
      : []),
  ];
}

/** A size as it stands on a bag, `30.5 × 0.70`, read; null where it is none. */
export function readRingCode(code: string): { readonly insideMm: number; readonly sectionMm: number } | null {
  const found = /^\s*(\d+(?:[.,]\d+)?)\s*(?:mm)?\s*[×x*]\s*(\d+(?:[.,]\d+)?)\s*(?:mm)?\s*$/i.exec(code);
  if (!found) return null;
  const [insideMm = 0, sectionMm = 0] = found.slice(1).map((each) => Number(each.replace(',', '.')));
  return insideMm > 0 && sectionMm > 0 && sectionMm < insideMm ? { insideMm, sectionMm } : null;
}
