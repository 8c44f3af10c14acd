import { book } from '../../../testing/fixtures';
import { FUNCTION_KINDS } from '../movements';
import { STAGES } from '../policy';
import { FURTHER_PROOFS, OUTSIDE, type ProvedMovement, proofsToMake, wayBackOf } from './proofs';

const movement = (over: Partial<ProvedMovement>): ProvedMovement => ({
  functions: ['hands'],
  stepIntervalS: 1,
  ...over,
});
const charge = (by: 'light' | 'rotor') => ({
  by,
  kitCode: 'KT-1',
  oldPart: 'accumulator' as const,
  diameterMm: 9.5,
  heightMm: 2,
  nominalV: 1.5,
  reserveDays: 180,
  contents: [],
  reused: [],
  upgradeKitCode: null,
  upgradeReserveDays: null,
  lastsYears: null,
});
const howOf = (of: ProvedMovement, what: string): string =>
  proofsToMake(of).find((each) => each.what === what)?.how ?? '';

describe('what is proved', () => {
  it('is every function of every calibre of the book, each with its way', () => {
    for (const calibre of book.calibres) {
      const steps = proofsToMake(calibre);
      expect(steps.slice(0, calibre.functions.length).map(({ what }) => what)).toEqual(calibre.functions);
      expect(steps.every(({ how, because }) => how.length > 10 && because === null)).toBe(true);
    }
  });

  it('is the reset contact, the signal in the shade and what hands and display share, where the movement has them', () => {
    const whats = (of: ProvedMovement): string[] => proofsToMake(of).map(({ what }) => what);
    expect(whats(movement({}))).toEqual(['hands']);
    expect(whats(movement({ resetContact: 'AC to the cell' }))).toContain('reset contact joined');
    expect(howOf(movement({ resetContact: 'AC to the cell' }), 'reset contact joined')).toBe(
      'Joined: AC to the cell.',
    );
    expect(whats(movement({ charge: charge('light') }))).toContain('signals low when shaded');
    expect(whats(movement({ charge: charge('rotor') }))).not.toContain('signals low when shaded');
    expect(whats(movement({ functions: ['hands', 'digital display'] }))).toContain('hands and display agree');
    expect(whats(movement({ functions: ['digital display'] }))).not.toContain('hands and display agree');
  });

  it('never says of a watch that is charged that its low signal must be gone with a new cell', () => {
    const functions = ['hands', 'low-supply signal', 'charging'] as const;
    for (const by of ['light', 'rotor'] as const) {
      const all = proofsToMake(movement({ functions, charge: charge(by), lowSupplySignal: 'steps in twos' }));
      expect(all.map(({ how }) => how).join(' ')).not.toContain('must be gone');
    }
    const primary = movement({ functions, lowSupplySignal: 'steps in twos' });
    expect(howOf(primary, 'low-supply signal')).toBe(
      'Its sign: steps in twos. It must be gone with the new cell.',
    );
  });

  it('takes in what the job adds, once, with its reason', () => {
    const steps = proofsToMake(movement({ functions: ['hands', 'alarm'] }), [
      { what: 'alarm', because: 'the buzzer spring was lost' },
      { what: 'light', because: 'the owner: light or alarm fails first' },
    ]);
    expect(steps.map(({ what, because }) => [what, because])).toEqual([
      ['hands', null],
      ['alarm', 'the buzzer spring was lost'],
      ['light', 'the owner: light or alarm fails first'],
    ]);
    expect(proofsToMake(null, [{ what: 'date', because: 'x' }]).map(({ what }) => what)).toEqual(['date']);
    expect(proofsToMake(null)).toEqual([]);
  });

  it.each([...FUNCTION_KINDS, ...FURTHER_PROOFS, ...OUTSIDE])(
    'of %s that fails it says where to look',
    (what) => {
      const { stage, look } = wayBackOf(what);
      expect(STAGES).toContain(stage);
      expect(look.length).toBeGreaterThan(5);
    },
  );

  it('sends a failed light back to the cell', () => {
    expect(wayBackOf('light').stage).toBe('cell');
  });
});
