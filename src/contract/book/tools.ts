import { CROSS_SIZES, TOOTH_FORMS } from '../../core/craft/cases';
import { MOST_LUX } from '../../core/craft/charging';
import { BLADE_FORMS, LIT_WHEN, TIP_FORMS, type ToolBodies, type ToolKind } from '../../core/craft/tools';
import { countRule } from './caseType';
import {
  choice,
  choiceOrNothing,
  clockOrNothing,
  cost,
  type Fields,
  figure,
  figureChoice,
  figureOrNothing,
  figures,
  later,
  mm,
  mmOrNothing,
  recordIdField,
  text,
  textOrNothing,
} from '../describe';

const tool = {
  id: recordIdField,
  name: text('Name, as on the tool', { max: 60, example: 'bench wrench, long' }),
  costMinor: cost('It cost'),
};
const travel = (label: string, example: number, blank?: number) =>
  mm(label, 120, example, { min: 0, ...(blank === undefined ? {} : { blank }) });
const travelOrNothing = (label: string, example: number) => mmOrNothing(label, 120, example, { min: 0 });
const widths = (label: string, one: string, example: number) =>
  figures(label, { one, max: 20, example, most: 20 });
const shank = textOrNothing('Shank', { max: 20, example: 'S5' });
const jaws = figureChoice('Jaws', [2, 3], 3);

export const toolFields: { readonly [K in ToolKind]: Fields<ToolBodies[K]> } = {
  wrench: {
    ...tool,
    jaws,
    travelMinMm: travel('Jaws open from', 12),
    travelMaxMm: travel('Jaws open to', 42),
    rearMinMm: travelOrNothing('Rear jaw from', 8),
    rearMaxMm: travelOrNothing('Rear jaw to', 36),
    jawWidthsMm: widths('Jaw widths, mm', 'Jaw width', 2.2),
    pinDiametersMm: widths('Pin diameters, mm', 'Pin diameter', 1.4),
  },
  openerDie: {
    ...tool,
    form: choice('Form', ['die', 'key'], 'die'),
    flats: figure('Flats', countRule(12)),
    acrossMm: mm('Across the flats', 80, 29.5),
    toothForm: later(choice('Form of the teeth', TOOTH_FORMS, 'flat facets')),
    shank,
  },
  holder: {
    ...tool,
    holds: choice('Holds', ['dies', 'the case', 'the movement'], 'dies'),
    shank,
    fromMm: travelOrNothing('Takes from', 18),
    toMm: travelOrNothing('Takes to', 48),
  },
  pressDie: {
    ...tool,
    innerMm: mmOrNothing('Inner diameter, blank if flat', 80, 30.5),
    outerMm: mm('Outer diameter', 90, 34),
    recessMm: travel('Recess', 2, 0),
    material: choice('Material', ['plastic', 'metal'], 'plastic'),
    shank: text('Shank', { max: 20, example: 'P6' }),
  },
  driver: {
    ...tool,
    tip: later(choice('Tip', TIP_FORMS, 'slotted')),
    bladeWidthMm: mmOrNothing('Blade width', 20, 1.4),
    bladeThicknessMm: mmOrNothing('Blade thickness', 5, 0.28, { min: 0.05 }),
    crossSize: later(choiceOrNothing('Cross size', CROSS_SIZES)),
  },
  blade: {
    ...tool,
    form: choice('Form', BLADE_FORMS, 'case knife'),
    widthMm: mm('Width', 60, 8),
  },
  ball: {
    ...tool,
    backFromMm: travel('Grips backs from', 24),
    backToMm: travel('Grips backs to', 44),
  },
  lightPlace: {
    ...tool,
    name: text('Name', { max: 60, example: 'lamp over the sill' }),
    lux: figure('Light where it was measured', {
      min: 1,
      max: MOST_LUX,
      example: 5000,
      quantity: 'illuminanceLux',
    }),
    measuredAtMm: mmOrNothing('Measured so far from the lamp, blank in daylight', 3000, 200, { min: 10 }),
    caseRiseK: figureOrNothing('A case there, over the room after 20 minutes', {
      min: 0,
      max: 80,
      example: 8,
      unit: 'K',
    }),
    lit: choice('Lit', LIT_WHEN, 'while the shop is open'),
    litFrom: clockOrNothing('Lit from'),
    litTo: clockOrNothing('Lit to'),
    litAgainFrom: later(clockOrNothing('Lit again from')),
    litAgainTo: later(clockOrNothing('Lit again to')),
    watches: figure('Watches at once', { min: 1, max: 50, example: 6, whole: true, blank: 6 }),
  },
};
