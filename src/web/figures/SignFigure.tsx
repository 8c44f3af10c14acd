import type { Sign } from '../../core/craft/movements';

/** Each sign as strokes in a square of 24. */
const STROKES: Readonly<Record<Sign, readonly string[]>> = {
  kite: ['M12 2 L19 10 L12 22 L5 10 Z'],
  'three rungs': ['M6 3 V21', 'M18 3 V21', 'M6 7 H18', 'M6 12 H18', 'M6 17 H18'],
  'broken ring': ['M20.5 9 A9 9 0 1 0 20.5 15'],
  wave: ['M2 14 C6 4 9 4 12 12 S18 20 22 10'],
  stair: ['M3 20 H9 V14 H15 V8 H21 V3'],
  'arc and dot': ['M3 18 A10 10 0 0 1 21 18', 'M12 17.9 V18.1'],
  'two leaves': ['M12 21 C4 15 4 8 11 4 C13 11 13 15 12 21 Z', 'M12 21 C20 15 20 8 13 4'],
  'hooked cross bar': ['M4 12 H20', 'M8 5 V19', 'M20 12 V17 H16'],
};

/** A maker's sign as it is struck into a movement. */
export function SignFigure({ sign, size = 28 }: { readonly sign: Sign; readonly size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 24 24" aria-hidden fill="none" stroke="currentColor">
      {STROKES[sign].map((path) => (
        <path key={path} d={path} strokeWidth="2.2" strokeLinecap="round" strokeLinejoin="round" />
      ))}
    </svg>
  );
}
