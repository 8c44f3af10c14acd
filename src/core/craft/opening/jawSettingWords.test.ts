import type { Wrench } from '../tools';
import type { JawQuestion } from './jawChoices';
import { jawSetting } from './jawSetting';
import { askJaws, twoJaws, wrench } from '../../../testing/wrenches';

// What is said of a setting, word for word: each figure is worked out by hand from the pitch circle.
const JAWS_APART = 'D · sin(angle between the notches / 2); off centre by D/2 · cos(angle / 2)';
const REAR = ['rear jaw to the line through the front pair', 'D/2 · (1 − cos φ)'] as const;
const JAW_BITE = ['bite', 'jaw 60–98 % of its notch'] as const;
const PIN_BITE = ['bite', 'pin 80–98 % of its hole'] as const;
const OFF = [
  'distance from the middle of the notch',
  'mirror error along the pitch circle, at most half the play',
] as const;
const EVEN_FRONT = ['front pair apart', 'D · sin(2πk/n), k·360°/n nearest 120°'] as const;
const UNEVEN_FRONT = ['front pair apart', 'D · sin φ, φ the mean angle from the rear jaw'] as const;
const TIPS = 'so the wrench tips and slips. Use a friction ball first, otherwise press down hard.';

interface Told {
  readonly verdict: 'set' | 'tips' | 'nothing fits';
  readonly with: string | null;
  readonly reasons: readonly string[];
  readonly others: readonly (readonly [words: string, why: string])[];
  readonly working: readonly (readonly [what: string, rule: string, figures: string])[];
}

const CASES: Readonly<Record<string, readonly [JawQuestion, Told]>> = {
  'six even notches': [
    askJaws({ wrenches: [wrench(), twoJaws()] }),
    {
      verdict: 'set',
      with: 'wrench, 2',
      reasons: [
        'Rear jaw in 1, front pair in 3 and 5, counted clockwise from behind.',
        'The jaw of 2 mm fills 80 % of the notch.',
      ],
      others: [
        [
          'rear jaw in 1, front pair in 2 and 6: front 26.85 mm, rear 7.75 mm',
          'All three jaws are in one half of the circle, at 60°, so the wrench tips.',
        ],
        ['jaws in 1 and 4: 31 mm apart', 'A wrench with two jaws can tip. One with three jaws cannot.'],
        ['two-jaw wrench', 'This wrench fits with two jaws only. Two jaws can tip.'],
      ],
      working: [
        [...EVEN_FRONT, 'n = 6, φ = 120°: 31 · sin 120° = 26.85 mm'],
        [...REAR, '15.5 · (1 − cos 120°) = 23.25 mm'],
        [...JAW_BITE, '2 ÷ 2.5 = 80 %'],
        [...OFF, '0 mm of 0.25 mm'],
      ],
    },
  ],
  'eight even notches, nearer 120° one way than the other': [
    askJaws({ count: 8, pitchMm: 34.2 }),
    {
      verdict: 'set',
      with: 'wrench, 2',
      reasons: [
        'Rear jaw in 1, front pair in 4 and 6, counted clockwise from behind.',
        'The jaw of 2 mm fills 80 % of the notch.',
      ],
      others: [
        [
          'rear jaw in 1, front pair in 3 and 7: front 34.2 mm, rear 17.1 mm',
          '90° from the rear jaw, no nearer to 120° than 135°.',
        ],
        [
          'rear jaw in 1, front pair in 2 and 8: front 24.18 mm, rear 5.01 mm',
          'All three jaws are in one half of the circle, at 45°, so the wrench tips.',
        ],
        [
          'jaws in 1 and 5: 34.2 mm apart',
          'No wrench with jaws of the right width can be set to this distance.',
        ],
      ],
      working: [
        [...EVEN_FRONT, 'n = 8, φ = 135°: 34.2 · sin 135° = 24.18 mm'],
        [...REAR, '17.1 · (1 − cos 135°) = 29.19 mm'],
        [...JAW_BITE, '2 ÷ 2.5 = 80 %'],
        [...OFF, '0 mm of 0.25 mm'],
      ],
    },
  ],
  'uneven notches': [
    askJaws({
      pitchMm: 30.4,
      widthMm: 2.8,
      clocks: [12, 1.9, 4.1, 6, 7.9, 10.1],
      wrenches: [
        wrench({ name: 'long', travelMaxMm: 70 }),
        wrench({ name: 'short', travelMaxMm: 20 }),
        wrench({ name: 'longer' }),
        wrench({ name: 'as long', travelMaxMm: 70 }),
        wrench({ name: 'stiff', travelMinMm: 26 }),
        wrench({ name: 'far', rearMinMm: 24 }),
        wrench({ name: 'near', rearMaxMm: 23 }),
      ],
    }),
    {
      verdict: 'set',
      with: 'long, 2.5',
      reasons: [
        'Rear jaw in 1, front pair in 3 and 5, counted clockwise from behind.',
        'The jaw of 2.5 mm fills 89 % of the notch.',
      ],
      others: [
        [
          'rear jaw in 2, front pair in 4 and 6: front 26.72 mm, rear 22.45 mm',
          'Each front jaw would be 1.19 mm off its notch, more than the play of 0.56 mm.',
        ],
        [
          'rear jaw in 2, front pair in 3 and 1: front 26.72 mm, rear 7.95 mm',
          'All three jaws are in one half of the circle, at 61°, so the wrench tips.',
        ],
        [
          'rear jaw in 1, front pair in 2 and 6: front 25.5 mm, rear 6.92 mm',
          'All three jaws are in one half of the circle, at 57°, so the wrench tips.',
        ],
        [
          'jaws in 1 and 4: 30.4 mm apart',
          'No wrench with jaws of the right width can be set to this distance.',
        ],
        ['short', '25.5 mm is over its travel of 0 to 20 mm.'],
        ['as long', 'This wrench fits equally well.'],
        [
          'longer',
          'This wrench also fits, but its jaws open wider than this back needs. A smaller wrench is easier to control.',
        ],
        ['stiff', '25.5 mm is under its travel of 26 to 80 mm.'],
        ['far', 'Its rear jaw does not reach 23.48 mm (24 to 80 mm).'],
        ['near', 'Its rear jaw does not reach 23.48 mm (0 to 23 mm).'],
      ],
      working: [
        [...UNEVEN_FRONT, 'n = 6, φ = 123°: 30.4 · sin 123° = 25.5 mm'],
        [...REAR, '15.2 · (1 − cos 123°) = 23.48 mm'],
        [...JAW_BITE, '2.5 ÷ 2.8 = 89 %'],
        [...OFF, '0 mm of 0.15 mm'],
      ],
    },
  ],
  'five notches and two jaws alone': [
    askJaws({ count: 5, pitchMm: 30, wrenches: [twoJaws(), twoJaws({ name: 'other' })] }),
    {
      verdict: 'tips',
      with: 'two-jaw wrench, 2',
      reasons: [
        'Jaws in 1 and 3, counted clockwise from behind.',
        'The jaw of 2 mm fills 80 % of the notch.',
        `The jaws run 4.64 mm past the centre, ${TIPS}`,
      ],
      others: [
        [
          'rear jaw in 1, front pair in 3 and 4: front 17.63 mm, rear 27.14 mm',
          'No wrench with jaws of the right width can be set to this distance.',
        ],
        [
          'rear jaw in 1, front pair in 2 and 5: front 28.53 mm, rear 10.36 mm',
          'All three jaws are in one half of the circle, at 72°, so the wrench tips.',
        ],
        ['other', 'This wrench fits equally well.'],
      ],
      working: [
        ['jaws apart', JAWS_APART, '30 · sin(144°/2) = 28.53 mm; off centre 4.64 mm'],
        [...JAW_BITE, '2 ÷ 2.5 = 80 %'],
        [...OFF, '4.71 mm of 0.25 mm'],
      ],
    },
  ],
  'four holes': [
    askJaws({
      count: 4,
      pitchMm: 26,
      widthMm: 1.5,
      of: 'holes',
      wrenches: [
        wrench({ name: 'pins', pinDiametersMm: [1.2, 1.4] }),
        wrench({ name: 'thin', pinDiametersMm: [0.8, 1.1] }),
        wrench({ name: 'broad', pinDiametersMm: [1.6, 2] }),
        wrench({ name: 'none' }),
        twoJaws({ pinDiametersMm: [1.2], travelMaxMm: 20 }),
      ],
    }),
    {
      verdict: 'set',
      with: 'pins, 1.4',
      reasons: [
        'Rear jaw in 1, front pair in 2 and 4, counted clockwise from behind.',
        'The pin of 1.4 mm fills 93 % of the hole.',
      ],
      others: [
        [
          'jaws in 1 and 3: 26 mm apart',
          'No wrench with jaws of the right width can be set to this distance.',
        ],
        ['two-jaw wrench', '26 mm is over its travel of 0 to 20 mm.'],
        ['thin', 'Its pin of 1.1 mm fills 73 % of the hole; 80 % at least.'],
        ['broad', 'Its pin of 1.6 mm does not enter a hole of 1.5 mm.'],
        ['none', 'It has no pins.'],
      ],
      working: [
        [...EVEN_FRONT, 'n = 4, φ = 90°: 26 · sin 90° = 26 mm'],
        [...REAR, '13 · (1 − cos 90°) = 13 mm'],
        [...PIN_BITE, '1.4 ÷ 1.5 = 93 %'],
        [...OFF, '0 mm of 0.05 mm'],
      ],
    },
  ],
  'two notches and no wrench for them': [
    askJaws({
      count: 2,
      pitchMm: 24.6,
      wrenches: [twoJaws({ travelMaxMm: 20 }), wrench(), wrench({ name: 'blunt', jawWidthsMm: [] })],
    }),
    {
      verdict: 'nothing fits',
      with: null,
      reasons: [
        'No wrench of this shop fits. Needed: a two-jaw wrench that opens to 24.6 mm, jaws 1.5 to 2.45 mm wide.',
      ],
      others: [
        [
          'jaws in 1 and 2: 24.6 mm apart',
          'No wrench with jaws of the right width can be set to this distance.',
        ],
        ['two-jaw wrench', '24.6 mm is over its travel of 0 to 20 mm.'],
        ['wrench', 'There is nothing for its jaws to grip.'],
        ['blunt', 'It has no jaws.'],
      ],
      working: [['jaws apart', JAWS_APART, '24.6 · sin(180°/2) = 24.6 mm; off centre 0 mm']],
    },
  ],
  'three notches so uneven that the jaws there are do not stand': [
    askJaws({
      count: 3,
      pitchMm: 30,
      widthMm: 3,
      clocks: [12, 4.1, 8.15],
      wrenches: [
        wrench({ jawWidthsMm: [2.9] }),
        wrench({ name: 'short', jawWidthsMm: [2], travelMaxMm: 20 }),
      ],
    }),
    {
      verdict: 'nothing fits',
      with: null,
      reasons: [
        'No wrench of this shop fits. Needed: a three-jaw wrench that reaches 25.37 mm in front and 23 mm to the rear jaw, jaws 1.8 to 2.61 mm wide.',
      ],
      others: [
        [
          'rear jaw in 1, front pair in 2 and 3: front 26.17 mm, rear 22.33 mm',
          'Each front jaw would be 0.98 mm off its notch, more than the play of 0.6 mm.',
        ],
        [
          'rear jaw in 3, front pair in 1 and 2: front 26.36 mm, rear 22.16 mm',
          'Each front jaw would be 0.79 mm off its notch, more than the play of 0.6 mm.',
        ],
        [
          'rear jaw in 2, front pair in 3 and 1: front 25.37 mm, rear 23 mm',
          'It needs a jaw of at most 2.61 mm, because the notches are uneven.',
        ],
        ['jaws in 1 and 2: 26.36 mm apart', '7.16 mm off centre: it tips and slips.'],
        ['short', '25.37 mm is over its travel of 0 to 20 mm.'],
        ['wrench', 'Its jaws are too wide for these uneven notches. At most 2.61 mm fits.'],
      ],
      working: [
        [...UNEVEN_FRONT, 'n = 3, φ = 122.3°: 30 · sin 122.3° = 25.37 mm'],
        [...REAR, '15 · (1 − cos 122.3°) = 23 mm'],
      ],
    },
  ],
  'holes so uneven that only two pins hold, off centre': [
    askJaws({
      count: 5,
      pitchMm: 30,
      widthMm: 2,
      of: 'holes',
      clocks: [12, 2, 4.1, 8.15, 10],
      wrenches: [wrench({ pinDiametersMm: [1.95] }), twoJaws({ pinDiametersMm: [1.7] })],
    }),
    {
      verdict: 'tips',
      with: 'two-jaw wrench, 1.7',
      reasons: [
        'Jaws in 3 and 5, counted clockwise from behind.',
        'The pin of 1.7 mm fills 85 % of the hole.',
        `The jaws run 0.39 mm past the centre, ${TIPS}`,
      ],
      others: [
        [
          'rear jaw in 1, front pair in 3 and 4: front 26.17 mm, rear 22.33 mm',
          'Each front jaw would be 0.98 mm off its hole, more than the play of 0.2 mm.',
        ],
        [
          'rear jaw in 4, front pair in 1 and 3: front 26.36 mm, rear 22.16 mm',
          'Each front jaw would be 0.79 mm off its hole, more than the play of 0.2 mm.',
        ],
        [
          'rear jaw in 3, front pair in 4 and 1: front 25.37 mm, rear 23 mm',
          'It needs a pin of at most 1.61 mm, because the holes are uneven.',
        ],
        [
          'rear jaw in 2, front pair in 3 and 1: front 26.36 mm, rear 7.84 mm',
          'All three jaws are in one half of the circle, at 61°, so the wrench tips.',
        ],
        ['wrench', 'Its pins are too wide for these uneven holes. At most 1.61 mm fits.'],
      ],
      working: [
        ['jaws apart', JAWS_APART, '30 · sin(177°/2) = 29.99 mm; off centre 0.39 mm'],
        [...PIN_BITE, '1.7 ÷ 2 = 85 %'],
        [...OFF, '0.39 mm of 0.15 mm'],
      ],
    },
  ],
};

describe('what is told of a setting', () => {
  it.each(Object.entries(CASES))('%s', (_, [question, answer]) => {
    const { verdict, found, reasons, others, working } = jawSetting(question);
    expect({
      verdict,
      with: found && `${found.wrench.name}, ${found.jawMm}`,
      reasons,
      others: others.map(({ words, why }) => [words, why]),
      working: working.map(({ what, rule, figures }) => [what, rule, figures]),
    }).toEqual(answer);
  });

  it('names its source with every line of working', () => {
    for (const [question] of Object.values(CASES))
      for (const { source } of jawSetting(question).working)
        expect(source).toBe('geometry of the pitch circle; bench practice for bite and play');
  });

  it('asks for nothing narrower than bites, nor wider than stands', () => {
    const { wanted, found } = jawSetting(askJaws({ wrenches: [] }));
    expect(found).toBeNull();
    expect(wanted).toBe(
      'a three-jaw wrench that reaches 26.85 mm in front and 23.25 mm to the rear jaw, jaws 1.5 to 2.45 mm wide',
    );
    expect(jawSetting(askJaws({})).wanted).toBeNull();
  });
});

describe('the ends of a travel and of a bite', () => {
  const four = (own: Partial<Wrench>) =>
    jawSetting(askJaws({ count: 4, pitchMm: 20, widthMm: 2, wrenches: [wrench(own)] })).verdict;
  const opposite = (own: Partial<Wrench>) =>
    jawSetting(askJaws({ count: 2, pitchMm: 20, widthMm: 2, wrenches: [twoJaws(own)] })).verdict;
  it.each([
    [{ travelMinMm: 20 }, 'set'],
    [{ travelMinMm: 20.01 }, 'set'],
    [{ travelMinMm: 20.02 }, 'nothing fits'],
    [{ travelMaxMm: 20 }, 'set'],
    [{ travelMaxMm: 19.99 }, 'set'],
    [{ travelMaxMm: 19.98 }, 'nothing fits'],
    [{ jawWidthsMm: [1.2] }, 'set'],
    [{ jawWidthsMm: [1.19] }, 'nothing fits'],
    [{ jawWidthsMm: [1.96] }, 'set'],
    [{ jawWidthsMm: [1.97] }, 'nothing fits'],
  ] as const)('%p: %s', (own, verdict) => {
    expect(opposite(own)).toBe(verdict);
    expect(four(own)).toBe(verdict);
  });
  it.each([
    [{ rearMinMm: 9.99 }, 'set'],
    [{ rearMinMm: 10.01 }, 'set'],
    [{ rearMinMm: 10.02 }, 'nothing fits'],
    [{ rearMaxMm: 10.01 }, 'set'],
    [{ rearMaxMm: 9.99 }, 'set'],
    [{ rearMaxMm: 9.98 }, 'nothing fits'],
    [{ rearMinMm: null }, 'nothing fits'],
    [{ rearMaxMm: null }, 'nothing fits'],
  ] as const)('rear jaw %p: %s', (own, verdict) => {
    expect(four(own)).toBe(verdict);
  });
});

describe('measures that cannot be', () => {
  it.each([
    [{ pitchMm: NaN }, 'The pitch circle is not a number.'],
    [{ pitchMm: -20 }, 'The pitch circle cannot be −20 mm.'],
    [{ pitchMm: 0 }, 'The pitch circle cannot be 0 mm.'],
    [{ pitchMm: Infinity }, 'The pitch circle is not a number.'],
    [{ widthMm: 0 }, 'A notch cannot be 0 mm.'],
    [{ widthMm: 25 }, 'wider than its pitch circle'],
    [{ count: NaN }, 'Count them again'],
    [{ count: 1 }, 'Count again'],
    [{ count: 2.5 }, 'not a valid count'],
  ] as const)('%p: named, and nothing reckoned with it', (own, words) => {
    const answer = jawSetting(askJaws({ count: 4, pitchMm: 20, widthMm: 2, wrenches: [wrench({})], ...own }));
    expect(answer).toMatchObject({ verdict: 'cannot say', found: null, working: [] });
    expect(answer.reasons.join(' ')).toContain(words);
  });
});
