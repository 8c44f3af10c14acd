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
    question: 'Small parts tray',
    ways: {
      'plain compartments': 'Magnets can disturb stepping motors and hands.',
      'magnetic dish': 'A dish that is knocked over loses no screw. Keep the movement well away from it.',
    },
    usual: 'plain compartments',
  },
  protection: {
    question: 'Protection between tool and back',
    ways: {
      film: 'A slip scratches the film, not the back. Always use it on coated or polished backs.',
      'bare tool': 'You feel the notch better. Only on backs that are already scratched.',
    },
    usual: 'film',
  },
  opener: {
    question: 'Openers allowed',
    ways: {
      'proper opener only': 'Improvised blades and pliers leave marks that the owner sees.',
      'improvised, recorded': 'A stuck back may need another tool. The record names the tool used.',
    },
    usual: 'proper opener only',
  },
  check: {
    question: 'First step with a stopped watch',
    ways: {
      'measure first': 'A reading separates a spent cell from a fault before a fresh cell is used.',
      'trial cell first': 'Quick, but shows only that it runs, not its current.',
    },
    usual: 'measure first',
  },
  hands: {
    question: 'Handling of cells',
    ways: {
      'cots or plastic tweezers': 'Skin salts stain the metal and bridge the insulation.',
      'clean bare fingers': 'Better grip. Wash and dry your hands and hold the rim only.',
    },
    usual: 'cots or plastic tweezers',
  },
  gasket: {
    question: 'Gasket at each opening',
    ways: {
      'inspect and decide':
        'Renew it if rated 5 bar or more, near water, defective, old, or closed for long. Otherwise grease and reuse it.',
      'renew at every opening': 'A new ring costs less than a leak.',
    },
    usual: 'inspect and decide',
  },
  ringOfUnknownAge: {
    question: 'Gasket of unknown age',
    ways: {
      'look at it': 'Its condition matters more than its age. A supple, round and whole ring may be reused.',
      renew: 'A new ring costs less than a leak.',
    },
    usual: 'look at it',
  },
  grease: {
    question: 'Applying silicone grease',
    ways: {
      either: 'What matters is a thin film everywhere and no surplus.',
      pad: 'Even and thin, and your fingers stay clean.',
      'fingers and wipe': 'Your finger feels a nick in the ring.',
    },
    usual: 'either',
  },
  snapOn: {
    question: 'Closing a snap-on back',
    ways: {
      'thumbs first': 'Light backs need no press. Use the press if the rim stays up.',
      'press at once': 'Even pressure from the start, with dies that fit.',
    },
    usual: 'thumbs first',
  },
  screwedBack: {
    question: 'Tightening a screwed back',
    ways: {
      'wrench-snug': 'A rated watch needs its ring squeezed. Use the torque from the book if there is one.',
      'hand-firm': 'Protects old threads. Enough for a watch that does not get wet.',
    },
    usual: 'wrench-snug',
  },
  accumulator: {
    question: 'Renewing an accumulator',
    ways: {
      'kit with tabs': 'It must last for many years. Welded tabs give reliable contact.',
      'old tab transferred': 'If no kit is available: align, press, measure, and check again soon.',
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
