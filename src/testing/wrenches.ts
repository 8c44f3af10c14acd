import type { JawQuestion } from '../core/craft/opening';
import type { Wrench } from '../core/craft/tools';

/** A wrench with three jaws, by its name. */
export const wrench = (own: Partial<Wrench> = {}): Wrench => ({
  id: own.name ?? 'wrench',
  name: 'wrench',
  costMinor: 1000,
  jaws: 3,
  travelMinMm: 0,
  travelMaxMm: 80,
  rearMinMm: 0,
  rearMaxMm: 80,
  jawWidthsMm: [1, 1.5, 2, 2.5],
  pinDiametersMm: [],
  ...own,
});
export const twoJaws = (own: Partial<Wrench> = {}): Wrench =>
  wrench({ name: 'two-jaw wrench', jaws: 2, rearMinMm: null, rearMaxMm: null, ...own });

/** Six even notches, and one wrench for them. */
export const askJaws = (own: Partial<JawQuestion> = {}): JawQuestion => ({
  count: 6,
  pitchMm: 31,
  widthMm: 2.5,
  clocks: [],
  of: 'notches',
  wrenches: [wrench()],
  ...own,
});
