import {
  BACK_KINDS,
  type BackMeasures,
  type CaseType,
  COATINGS,
  CROSS_SIZES,
  CROWNS,
  DUST_COVERS,
  HATCH_OPENS,
  MOST_NOTCHES,
  PANEL_HELD_BY,
  SCREW_HEADS,
  TOOTH_FORMS,
  VIEWS,
} from '../../core/craft/cases';
import type { Gasket } from '../../core/craft/gaskets';
import {
  choice,
  choiceOrNothing,
  type Fields,
  figure,
  figureOrNothing,
  figures,
  later,
  lines,
  makerField,
  mm,
  mmOrNothing,
  mono,
  partOrNothing,
  recordIdField,
  text,
  textOrNothing,
} from '../describe';

/** How many of something go round a back. */
export const countRule = (example: number) => ({ min: 1, max: MOST_NOTCHES, example, whole: true });
const count = (label: string, example: number) => figureOrNothing(label, countRule(example));
const clock = { min: 0.5, max: 12, unit: 'o’clock' } as const;

/** The measures of a back, in the book and at the bench. */
export const backMeasureFields: Fields<BackMeasures> = {
  diameterMm: mmOrNothing('Back diameter', 80, 34.5),
  coating: choiceOrNothing('Surface', COATINGS),
  notchCount: count('Notches or holes', 6),
  pitchMm: mmOrNothing('Pitch circle', 80, 31.4),
  notchWidthMm: mmOrNothing('Width of a notch or hole', 20, 2.6),
  notchClocks: figures('Notch positions, if uneven', {
    one: 'Notch position',
    min: 0.05,
    max: 12,
    unit: 'o’clock',
    example: 4.2,
    most: 48,
  }),
  flatCount: count('Flats', 12),
  acrossMm: mmOrNothing('Across the flats', 80, 29.5),
  toothForm: later(choiceOrNothing('Form of the teeth', TOOTH_FORMS)),
  screwCount: count('Screws', 4),
  screwHead: later(choiceOrNothing('Screw heads', SCREW_HEADS)),
  crossSize: later(choiceOrNothing('Cross size', CROSS_SIZES)),
  slotLengthMm: mmOrNothing('Slot length', 20, 1.6),
  slotWidthMm: mmOrNothing('Slot width', 10, 0.35, { min: 0.05 }),
  hatchOpens: later(choiceOrNothing('How the hatch opens', HATCH_OPENS)),
  panelHeldBy: choiceOrNothing('Panel held by', PANEL_HELD_BY),
  panelThenBy: later(choiceOrNothing('Panel then held by', PANEL_HELD_BY)),
  panelLastBy: later(choiceOrNothing('Panel last held by', PANEL_HELD_BY)),
  dustCover: later(choiceOrNothing('Dust cover beneath the back', DUST_COVERS)),
  caseMm: later(mmOrNothing('Case diameter', 80, 38.5)),
};

export const caseTypeFields: Fields<CaseType> = {
  id: recordIdField,
  makerId: makerField,
  code: mono('Case code', { example: 'C2140-3' }),
  backKind: choice('Kind of back', BACK_KINDS, 'snap-on'),
  ratingBar: figureOrNothing('Rated when new', { min: 0, max: 1000, example: 3, quantity: 'ratingBar' }),
  crownClock: figure('Crown at, seen from the dial', { ...clock, example: 4, blank: 3 }),
  lipClock: figureOrNothing('Position of lip or nick', { ...clock, example: 4 }),
  lipSeenFrom: later(choice('Lip seen from', VIEWS, 'behind')),
  crown: later(choiceOrNothing('Crown is', CROWNS)),
  gasket: textOrNothing('Gasket, inside × section in mm', { example: '30.5 × 0.70' }),
  back: later(partOrNothing('Its back was measured', backMeasureFields)),
};

export const gasketFields: Fields<Gasket> = {
  id: recordIdField,
  code: mono('Size, as on the bag', { example: '30.5 × 0.70' }),
  profile: choice('Profile', ['round', 'flat', 'L-shaped', 'shaped to the case'], 'round'),
  insideMm: mm('Inside diameter', 80, 30.5),
  sectionMm: mm('Section, of a flat ring its thickness', 5, 0.7),
  widthMm: later(mmOrNothing('Width of a flat ring', 8, 1.2)),
  material: text('Material', { example: 'nitrile', blank: 'nitrile' }),
  caseCodes: lines('Cases it seals, one a line', { example: 'C2140-3' }),
};
