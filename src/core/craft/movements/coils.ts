import type { Coil } from './types';

/** A point or a direction in the coil’s own frame, where its zone is a rectangle along the axes: across its winding and along it, mm. */
export function inFrameOf(
  { degrees }: Pick<Coil, 'degrees'>,
  x: number,
  y: number,
): { readonly across: number; readonly along: number } {
  const turn = (degrees / 180) * Math.PI;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  return { across: x * cos - y * sin, along: x * sin + y * cos };
}

/** Whether a place of the layout lies on a coil or so near it, mm; a place or a measure that is no number is taken to. */
export function isNearCoil(coil: Coil, xMm: number, yMm: number, withinMm: number): boolean {
  const { across, along } = inFrameOf(coil, xMm - coil.xMm, yMm - coil.yMm);
  const beside = Math.abs(across) > coil.widthMm / 2 + withinMm;
  const beyond = Math.abs(along) > coil.lengthMm / 2 + withinMm;
  return !beside && !beyond;
}
