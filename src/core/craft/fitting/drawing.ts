import { type Coil, inFrameOf } from '../movements';
import type { FittingDrawing, FittingQuestion, GuidedMovement, GuidedPlace } from './question';

const CELL_MM = 7;
/** A push that slips carries a tool this far, within this angle to either side. Ours, from bench practice. */
const SLIP_MM = 8;
const SLIP_HALF_DEGREES = 30;
const RAY_EVERY_DEGREES = 1;
const DEGREES_AN_HOUR = 30;

const radians = (degrees: number): number => (degrees / 180) * Math.PI;

/** How far along a ray a coil’s keep-clear zone begins, mm; null where the ray misses it. */
function alongTo(
  coil: Coil,
  keepClearMm: number,
  from: { readonly x: number; readonly y: number },
  direction: { readonly x: number; readonly y: number },
): number | null {
  const start = inFrameOf(coil, from.x - coil.xMm, from.y - coil.yMm);
  const step = inFrameOf(coil, direction.x, direction.y);
  let [enter, leave] = [0, SLIP_MM];
  for (const [at, by, half] of [
    [start.across, step.across, coil.widthMm / 2 + keepClearMm],
    [start.along, step.along, coil.lengthMm / 2 + keepClearMm],
  ] as const) {
    if (Math.abs(by) < 1e-9) {
      if (Math.abs(at) > half) return null;
      continue;
    }
    const [a, b] = [(-half - at) / by, (half - at) / by];
    enter = Math.max(enter, Math.min(a, b));
    leave = Math.min(leave, Math.max(a, b));
  }
  return enter <= leave ? enter : null;
}

const towards = (degrees: number): { readonly x: number; readonly y: number } => ({
  x: Math.sin(radians(degrees)),
  y: Math.cos(radians(degrees)),
});

/**
 * How near a coil’s keep-clear zone comes within the cone a slipping tool may take from the rim of the cell, mm; null
 * where none lies in it. Rays through the cone, one every degree.
 */
function coilInSlip(
  { coils, keepClearMm }: GuidedMovement,
  { xMm, yMm }: GuidedPlace,
  pushDegrees: number,
  radiusMm: number,
): number | null {
  const push = towards(pushDegrees);
  const from = { x: xMm + push.x * radiusMm, y: yMm + push.y * radiusMm };
  const ahead: number[] = [];
  for (let off = -SLIP_HALF_DEGREES; off <= SLIP_HALF_DEGREES; off += RAY_EVERY_DEGREES)
    for (const coil of coils) {
      const mm = alongTo(coil, keepClearMm, from, towards(pushDegrees + off));
      if (mm !== null) ahead.push(mm);
    }
  return ahead.length === 0 ? null : Math.min(...ahead);
}

/** Where the other hand is braced, and whether a coil lies ahead of the push. */
export function drawingOf({
  movement: calibre,
  place: well,
  cellDiameterMm,
}: FittingQuestion): FittingDrawing {
  const { pushDegrees } = well;
  if (pushDegrees === null || !Number.isFinite(pushDegrees)) return { brace: null, coilAheadMm: null };
  const coilAheadMm = coilInSlip(calibre, well, pushDegrees, (cellDiameterMm ?? CELL_MM) / 2);
  const halfMm =
    calibre.widthMm === null ? null : Math.min(calibre.widthMm, calibre.lengthMm ?? Infinity) / 2;
  if (halfMm === null || !(halfMm > 0 && halfMm < Infinity)) return { brace: null, coilAheadMm };
  // Where the push comes to, so that a slip ends at the finger; beside it where a coil lies there.
  const degrees = [0, 30, -30, 60, -60, 90, -90].map((off) => pushDegrees + off);
  const clear = degrees.find((each) => {
    const [x, y] = [Math.sin(radians(each)) * halfMm, Math.cos(radians(each)) * halfMm];
    return calibre.coils.every(
      (coil) => Math.hypot(coil.xMm - x, coil.yMm - y) > Math.max(coil.lengthMm, coil.widthMm) / 2,
    );
  });
  const braced = clear ?? pushDegrees;
  const clock = Math.round((((braced % 360) + 360) % 360) / (DEGREES_AN_HOUR / 2)) / 2;
  const tenth = (mm: number): number => Math.round(mm * 10) / 10;
  return {
    brace: {
      xMm: tenth(Math.sin(radians(braced)) * halfMm),
      yMm: tenth(Math.cos(radians(braced)) * halfMm),
      clock: clock === 0 ? 12 : clock,
    },
    coilAheadMm,
  };
}
