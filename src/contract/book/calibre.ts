import { DAY_IS, FIGURES_ARE, MOST_LUX } from '../../core/craft/charging';
import {
  type Calibre,
  CONTACT_KINDS,
  DIAL_PARTS,
  FUNCTION_KINDS,
  ABOVE_CELL,
  HOLD_KINDS,
  type Maker,
  SIGNS,
  USUAL_KEEP_CLEAR_MM,
} from '../../core/craft/movements';
import {
  choice,
  choiceOrNothing,
  clock,
  type Fields,
  figure,
  figureOrNothing,
  figures,
  freeMono,
  freeText,
  later,
  lines,
  makerField,
  mm,
  mmOrNothing,
  mono,
  partOrNothing,
  parts,
  recordIdField,
  several,
  severalOrNone,
  text,
  textOrNothing,
  tick,
} from '../describe';

/** A movement: under 5 mm or over 60 mm is a slip of the key. */
export const widthOfMovement = mmOrNothing('Width', 60, 23.3, { min: 5 });

/** Where something stands on a movement, in millimetres from its centre. */
const xMm = mm('Towards 3 o’clock, seen from behind', 60, 4.2, { min: -60, blank: 0 });
const yMm = mm('Towards 12 o’clock, seen from behind', 60, 4.2, { min: -60, blank: 0 });
const degrees = (label: string) => figure(label, { min: 0, max: 360, example: 210, unit: '°', blank: 0 });
const jewels = (label: string) => figureOrNothing(label, { min: 0, max: 31, example: 5, whole: true });
const ohms = (label: string, example: number) =>
  figureOrNothing(label, { min: 0.01, max: 100, example, quantity: 'resistanceKOhm' });

const chargingHours = (label: string) =>
  figureOrNothing(label, { min: 0.01, max: 10_000, example: 40, unit: 'h' });

export const makerFields: Fields<Maker> = {
  id: recordIdField,
  name: text('Name', { max: 60, example: 'Orrelin' }),
  sign: later(choiceOrNothing('Sign struck into its movements', SIGNS)),
  patterns: parts('What the maker engraves: d a digit, l a letter', 'pattern', 'patterns', 20, {
    meaning: choice('Meaning', ['movement', 'case', 'serial'], 'movement'),
    template: mono('Pattern', { max: 30, example: 'OR dd.d' }),
  }),
};

export const calibreFields: Fields<Calibre> = {
  id: recordIdField,
  makerId: makerField,
  code: mono('Calibre, as engraved', { example: 'OR 41.2' }),
  formerCodes: lines('Former codes, one a line', { example: 'OR 40.2' }),
  family: later(freeText('Family, of calibres built alike', { example: 'OR 41' })),
  shopsOwn: later(tick('Shop’s own, to be completed')),
  shape: choice('Shape', ['round', 'oblong'], 'round'),
  widthMm: widthOfMovement,
  lengthMm: mmOrNothing('Length', 60, 23.3, { min: 5 }),
  heightMm: mmOrNothing('Height', 20, 3.15),
  jewels: later(jewels('Jewels')),
  printed: later(lines('Words printed on it, one a line', { example: 'two jewels' })),
  dial: later(
    parts('What the dial shows, and where', 'thing on the dial', 'dials', 12, {
      shows: choice('Shows', DIAL_PARTS, 'date'),
      clock: figureOrNothing('At, seen from the dial; blank: at the centre', {
        min: 0.5,
        max: 12,
        example: 4,
        unit: 'o’clock',
        blank: 3,
      }),
    }),
  ),
  functions: several('Functions', FUNCTION_KINDS, ['hands']),
  stepIntervalS: figureOrNothing('Step interval', { min: 0.01, max: 120, example: 1, unit: 's', blank: 1 }),
  lowSupplySignal: textOrNothing('Low-supply signal', {
    max: 120,
    example: 'the seconds hand steps in twos',
  }),
  typicalUA: figureOrNothing('Typical current', {
    min: 0.01,
    max: 100,
    example: 1.05,
    quantity: 'currentUA',
  }),
  limitUA: figureOrNothing('Current limit', { min: 0.01, max: 200, example: 1.6, quantity: 'currentUA' }),
  coilMinKOhm: ohms('Coil from', 1.6),
  coilMaxKOhm: ohms('Coil to', 2.1),
  lowestV: figureOrNothing('Runs down to', {
    min: 0.5,
    max: 4,
    example: 1.2,
    quantity: 'voltageV',
    blank: 1.2,
  }),
  wells: parts('Places for cells', 'place', 'wells', 4, {
    name: text('Name', { example: 'main', blank: 'main' }),
    cellCode: freeMono('Cell', { max: 20, example: 'SR621SW' }),
    xMm,
    yMm,
    otherHeightsMm: figures('Other heights, mm', { one: 'Other height', max: 20, example: 1.65, most: 5 }),
    faceUp: choice('Face up', ['+', '−'], '+'),
    heldBy: choice('Held by', HOLD_KINDS, 'side lever'),
    pushDegrees: degrees('Push, from 12 o’clock, seen from behind'),
    feeds: later(severalOrNone('Feeds, where there are several', FUNCTION_KINDS)),
    typicalUA: later(
      figureOrNothing('Drawn from it, usually', {
        min: 0.01,
        max: 1000,
        example: 0.9,
        quantity: 'currentUA',
      }),
    ),
    limitUA: later(
      figureOrNothing('Drawn from it, at most', {
        min: 0.01,
        max: 1000,
        example: 1.5,
        quantity: 'currentUA',
      }),
    ),
  }),
  aboveCell: later(severalOrNone('Above the cells, the outermost first', ABOVE_CELL)),
  coils: parts('Coils to keep clear of', 'coil', 'coils', 6, {
    xMm,
    yMm,
    lengthMm: mm('Length', 40, 9.2, { blank: 8 }),
    widthMm: mm('Width', 20, 2.1, { blank: 2 }),
    degrees: degrees('Direction'),
  }),
  keepClearMm: later(mm('No tool nearer to a coil than', 10, 0.8, { min: 0, blank: USUAL_KEEP_CLEAR_MM })),
  contacts: later(
    parts('Contacts', 'contact', 'contacts', 12, {
      kind: choice('Contact', CONTACT_KINDS, 'plus'),
      xMm,
      yMm,
    }),
  ),
  insulators: later(
    lines('Insulators, one a line', { example: 'under the cell, its notch towards the stem' }),
  ),
  recipes: later(
    parts('Recipes', 'recipe', 'recipes', 20, {
      what: text('What for', { max: 80, example: 'cell out and in' }),
      steps: lines('Steps, one a line', { example: 'lever away from the coil until the cell rises' }),
    }),
  ),
  revisions: later(
    parts('Revisions, where there are several', 'revision', 'revisions', 9, {
      name: text('Name', { example: 'B' }),
      seenBy: text('Told apart by', { max: 120, example: 'contact with two fingers' }),
      cellCode: textOrNothing('Its cell, blank if the same', { max: 20, example: 'SR626SW' }),
      heightMm: mmOrNothing('Its height, blank if the same', 20, 3.15),
      jewels: jewels('Its jewels, blank if the same'),
      heldBy: choiceOrNothing('Its cell held by, if otherwise', HOLD_KINDS),
    }),
  ),
  functionDraws: parts('What further functions draw', 'function', 'draws', 10, {
    name: text('Function', { example: 'light' }),
    drawUA: figure('Draws', { min: 0, max: 50_000, example: 4200, quantity: 'currentUA', blank: 0 }),
    secondsPerDay: figure('Seconds a day', { min: 0, max: 86_400, example: 6, unit: 's', blank: 0 }),
  }),
  charge: later(
    partOrNothing('Runs from an accumulator', {
      by: choice('Charged by', ['light', 'rotor'], 'light'),
      kitCode: mono('Kit', { example: 'KT-V21' }),
      oldPart: choice('Old part', ['accumulator', 'capacitor'], 'accumulator'),
      diameterMm: mm('Diameter', 50, 9.5, { blank: 9.5 }),
      heightMm: mm('Height', 20, 2.1, { blank: 2.1 }),
      nominalV: figure('Nominal voltage', {
        min: 0.5,
        max: 5,
        example: 1.5,
        quantity: 'voltageV',
        blank: 1.5,
      }),
      reserveDays: figure('Runs when full', {
        min: 0.1,
        max: 4000,
        example: 180,
        unit: 'days',
        blank: 180,
      }),
      contents: later(lines('Its kit contains, one a line', { example: 'accumulator with two tabs' })),
      reused: later(lines('Goes in again, one a line', { example: 'the insulator on its pegs' })),
      upgradeKitCode: later(
        textOrNothing('Kit of a modern accumulator, where foreseen', { max: 40, example: 'KT-V33M' }),
      ),
      upgradeReserveDays: later(
        figureOrNothing('With that it runs when full', { min: 0.1, max: 4000, example: 150, unit: 'days' }),
      ),
      lastsYears: later(figureOrNothing('A new one lasts', { min: 1, max: 60, example: 12, unit: 'years' })),
    }),
  ),
  lightTimes: later(
    parts('Charging by light, from flat, line by line', 'line', 'light-times', 12, {
      lux: figure('Light', { min: 1, max: MOST_LUX, example: 10_000, unit: 'lx', whole: true }),
      steppingH: chargingHours('Steps normally after'),
      dayH: chargingHours('A day of running after'),
      fullH: chargingHours('Full after'),
    }),
  ),
  dayIs: later(choiceOrNothing('A day of running is stated as', DAY_IS)),
  goodToFactor: later(
    figureOrNothing('Its charging times are good to a factor of', { min: 1.01, max: 10, example: 1.5 }),
  ),
  rotor: later(
    partOrNothing('Charged by its rotor', {
      perHourWornH: figureOrNothing('Hours of running an hour worn', {
        min: 0.01,
        max: 500,
        example: 12,
        unit: 'h',
      }),
      perThousandTurnsH: figureOrNothing('Hours of running a thousand turns', {
        min: 0.01,
        max: 500,
        example: 10,
        unit: 'h',
      }),
      figuresAre: choice('The figures are', FIGURES_ARE, 'net of its running'),
    }),
  ),
  resetContact: textOrNothing('Reset contact', { max: 120, example: 'AC to the cell, two seconds' }),
  dateQuickSet: tick('The date has a quick-set'),
  dayQuickSet: later(tick('The day has a quick-set, too')),
  changeOver: later(
    partOrNothing('Its own change-over of date and day', {
      fromClock: clock('From, in the evening', {
        pattern: /^(1[89]|2[0-3]):[0-5]\d$/,
        range: '18:00 to 23:59',
        example: '22:30',
      }),
      toClock: clock('To, in the morning', {
        pattern: /^0[0-5]:[0-5]\d$/,
        range: '00:00 to 05:59',
        example: '04:30',
      }),
    }),
  ),
  crownPositions: lines('Crown positions, pushed home first, one a line', { example: 'home' }),
  cautions: lines('Cautions for this calibre only, one a line', {
    example: 'The lever is pushed toward the coil.',
  }),
};
