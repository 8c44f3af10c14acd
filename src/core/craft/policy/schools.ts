interface School {
  readonly question: string;
  /** Each way, with what speaks for it. */
  readonly ways: Readonly<Record<string, string>>;
  readonly usual: string;
}

/**
 * Where good technicians differ, the shop chooses. `usual` is the way taken until it does. Source: bench practice.
 */
export const SCHOOLS = {
  parts: {
    question: 'Where small parts lie',
    ways: {
      'plain compartments': 'Magnets near stepping motors and hands are a nuisance.',
      'magnetic dish': 'A knocked dish loses no screw; the movement stays well away from it.',
    },
    usual: 'plain compartments',
  },
  protection: {
    question: 'Between tool and back',
    ways: {
      film: 'A slip marks the film. Always on coated or polished backs.',
      'bare tool': 'The hand feels the notch; only on backs that are scratched already.',
    },
    usual: 'film',
  },
  opener: {
    question: 'What opens a back',
    ways: {
      'proper opener only': 'Blades and pliers where no opener fits leave marks the owner sees.',
      'improvised, recorded': 'A stuck back may need more than the set holds; the record names the tool.',
    },
    usual: 'proper opener only',
  },
  check: {
    question: 'First with a watch that stopped',
    ways: {
      'measure first': 'A reading tells a spent cell from a fault before a fresh cell is spent on it.',
      'trial cell first': 'Quick; says only that it runs, not what it draws.',
    },
    usual: 'measure first',
  },
  hands: {
    question: 'What touches a cell',
    ways: {
      'cots or plastic tweezers': 'Skin salts mark the metal and bridge the insulation.',
      'clean bare fingers': 'Surer grip; washed, dry, by the rim only.',
    },
    usual: 'cots or plastic tweezers',
  },
  gasket: {
    question: 'The gasket at each opening',
    ways: {
      'inspect and decide':
        'Renewed when rated 5 bar or more, near water, defective, old, or shut for long; else greased and reused.',
      'renew at every opening': 'A new ring costs less than a leak.',
    },
    usual: 'inspect and decide',
  },
  ringOfUnknownAge: {
    question: 'A ring of unknown age',
    ways: {
      'look at it': 'Its condition says more than its age: a supple, round and whole ring may be reused.',
      renew: 'A new ring costs less than a leak.',
    },
    usual: 'look at it',
  },
  grease: {
    question: 'Silicone grease goes on with',
    ways: {
      either: 'What counts is a trace all over and the surplus off.',
      pad: 'Even and thin, and the fingers stay clean.',
      'fingers and wipe': 'The finger feels a nick in the ring.',
    },
    usual: 'either',
  },
  snapOn: {
    question: 'A snap-on back goes on with',
    ways: {
      'thumbs first': 'Light backs need no press; the press comes out when the rim stays up.',
      'press at once': 'Even from the start, with the dies that fit.',
    },
    usual: 'thumbs first',
  },
  screwedBack: {
    question: 'A screwed back is drawn to',
    ways: {
      'wrench-snug': 'A rated watch needs the ring squeezed; the book’s torque where it has one.',
      'hand-firm': 'Spares old threads; enough for a watch that meets no water.',
    },
    usual: 'wrench-snug',
  },
  accumulator: {
    question: 'An accumulator is renewed as',
    ways: {
      'kit with tabs': 'It must serve for many years; welded tabs make sure contact.',
      'old tab transferred': 'Where no kit is to be had: aligned, pressed, measured, looked at again early.',
    },
    usual: 'kit with tabs',
  },
} as const satisfies Record<string, School>;

export type SchoolId = keyof typeof SCHOOLS;
export const SCHOOL_IDS = Object.keys(SCHOOLS) as SchoolId[];
export type WayOf<S extends SchoolId> = keyof (typeof SCHOOLS)[S]['ways'] & string;
export type Schools = { readonly [S in SchoolId]: WayOf<S> };

export function waysOf<S extends SchoolId>(school: S): WayOf<S>[] {
  return Object.keys(SCHOOLS[school].ways) as WayOf<S>[];
}

/** The way this shop takes on a question, and what speaks for it. */
export function wayTaken(
  schools: Schools,
  school: SchoolId,
): { readonly way: string; readonly reason: string } {
  const way: string = schools[school];
  return { way, reason: (SCHOOLS[school].ways as Readonly<Record<string, string>>)[way] ?? '' };
}

export const USUAL_SCHOOLS = Object.fromEntries(
  SCHOOL_IDS.map((school) => [school, SCHOOLS[school].usual]),
) as Schools;
