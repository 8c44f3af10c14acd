import { book } from '../../../testing/fixtures';
import { readCellMarking } from './readCellMarking';
import { cellNamedIn, supplySaid } from './supplySaid';

describe('a cell named by a print', () => {
  it.each([
    ['USE SR626SW ONLY', 'SR626SW'],
    ['BATTERY 377', 'SR626SW'],
    ['SR 621 SW', 'SR621SW'],
    ['NO JEWELS', undefined],
    ['4471 377', undefined],
    ['ML2016', undefined],
    ['', undefined],
  ])('%s: %s', (text, code) => {
    expect(cellNamedIn(text, book.cellTable)?.code).toBe(code);
  });
});

describe('what a text says of the supply', () => {
  it.each([
    ['RECHARGEABLE CELL ONLY', 'rechargeable', 'rechargeable'],
    ['Re-charge in daylight', 'rechargeable', 're-charge'],
    ['CAPACITOR INSIDE', 'rechargeable', 'capacitor'],
    ['light powered, do not use SR927W', 'rechargeable', 'light powered'],
    ['USE CTL1616', 'rechargeable', 'CTL1616'],
    ['MT 621', 'rechargeable', 'MT 621'],
    ['DO NOT RECHARGE', 'primary', 'do not recharge'],
    ['NON-RECHARGEABLE LITHIUM', 'primary', 'non-rechargeable'],
    ['must not be charged', 'primary', 'not be charged'],
    ['USE SR626SW ONLY', 'primary', 'SR626SW'],
    ['charged 20 at another shop', null, null],
    ['NO JEWELS', null, null],
    ['', null, null],
  ])('%s: %s', (text, supply, by) => {
    expect(supplySaid(text, book.cellTable, { namesCount: true })).toEqual(
      supply === null ? null : { supply, by },
    );
  });

  it('takes a bare name in an engraving for a code, unless a word like cell stands beside it', () => {
    const engraved = (text: string) => supplySaid(text, book.cellTable, { namesCount: false })?.supply;
    expect([engraved('MT 621'), engraved('CELL MT621'), engraved('SOLAR 12')]).toEqual([
      undefined,
      'rechargeable',
      'rechargeable',
    ]);
  });
});

describe('a marking that says it is charged', () => {
  it.each(['RECHARGEABLE 1616', 'CAPACITOR', 'SR621SW RECHARGEABLE', 'Li-ion 2016'])('%s', (marking) => {
    expect(readCellMarking(marking, book.cellTable).verdict).toBe('rechargeable');
  });
  it('is not one that forbids it', () => {
    expect(readCellMarking('CR2016 DO NOT RECHARGE', book.cellTable).verdict).not.toBe('rechargeable');
  });
  it.each([
    ['?2032', true],
    ['CR2?32', false],
    ['QX1620', true],
    ['SR621SW', false],
    ['???', false],
  ])('%s may be rechargeable: %s', (marking, may) => {
    expect(readCellMarking(marking, book.cellTable).mayBeRechargeable).toBe(may);
  });
});
