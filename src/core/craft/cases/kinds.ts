export const BACK_KINDS = [
  'snap-on',
  'screwed, notched',
  'screwed, round holes',
  'screwed, patterned',
  'plate on screws',
  'opens from the front',
  'battery hatch',
  'latched panel',
] as const;
export type BackKind = (typeof BACK_KINDS)[number];

/** A kind of back by its name, or null where it is none. */
export function asBackKind(name: string | undefined): BackKind | null {
  return BACK_KINDS.find((each) => each === name) ?? null;
}

export interface BackFacts {
  readonly knownBy: string;
  readonly opener: string;
  readonly minds: string;
  readonly caution: string;
  readonly closes: readonly string[];
}

/** What each kind of back is known by, opens with, and asks the hand to mind. Source: bench practice. */
export const backs: Readonly<Record<BackKind, BackFacts>> = {
  'snap-on': {
    knownBy: 'a lip, nick or small arrow on the rim; sometimes no mark at all',
    opener: 'case knife',
    minds: 'the clock position of the lip and of the notch over the stem',
    caution: 'Brace the thumb on the case: a knife that slips goes into the hand or the movement.',
    closes: ['thumbs', 'press'],
  },
  'screwed, notched': {
    knownBy: 'notches round a ring',
    opener: 'two- or three-jaw wrench',
    minds: 'jaws sized to the notch, pressed down while turning',
    caution:
      'If the back resists, use a fixed holder and more weight, not more torque. Jaws that slip scratch the back.',
    closes: ['by hand and wrench', 'by hand'],
  },
  'screwed, round holes': {
    knownBy: 'two or more round holes',
    opener: 'wrench with pins',
    minds: 'a pin fills its hole',
    caution: 'A pin that is too thin tears out the hole and scratches the back.',
    closes: ['by hand and wrench', 'by hand'],
  },
  'screwed, patterned': {
    knownBy: 'facets or a pattern that no jaw fits',
    opener: 'the matching die in a holder with the same shank',
    minds:
      'measure across the flats and see the form of the teeth; the neighbouring die, or one of another form, is the usual mistake',
    caution: 'A die one size too large turns once and rounds off the flats.',
    closes: ['die and holder'],
  },
  'plate on screws': {
    knownBy: 'four or more screw heads',
    opener: 'screwdriver of the form of the heads, fitted to slot or cross',
    minds: 'worn heads; small loose parts beneath',
    caution: 'Lift the plate level. Springs and spacers lie loose beneath it.',
    closes: ['screws crosswise in rounds'],
  },
  'opens from the front': {
    knownBy: 'no joint at the back, a nick under the bezel',
    opener: 'case knife under the bezel',
    minds: 'dial and hands come out too; use a movement holder and keep dust away',
    caution: 'The hands are unprotected once the bezel is off. Nothing may touch the dial side.',
    closes: ['press', 'thumbs'],
  },
  'battery hatch': {
    knownBy: 'a small round cover: with a coin slot it is turned, with a nick at its edge pried',
    opener: 'blunt blade or coin',
    minds: 'it carries the seal and a contact; mark its angle first',
    caution: 'Find out first whether it is turned or pried. The wrong way breaks its bayonet or tongue.',
    closes: ['to the reference mark', 'pressed home'],
  },
  'latched panel': {
    knownBy: 'a plastic panel with catches, a sliding lock or adhesive, or several of them',
    opener: 'thumbs or a blunt pin, braced',
    minds: 'the adhesive is a part: cover it, reuse it or replace it',
    caution: 'Support your hand on the bench. When a catch suddenly releases, the pin jumps forward.',
    closes: ['until the catches click'],
  },
};

/** Which of the shop's ways of working says how a back of this kind is closed; null where the back itself does. */
export function closingSchool(kind: BackKind): 'snapOn' | 'screwedBack' | null {
  if (kind === 'snap-on' || kind === 'opens from the front') return 'snapOn';
  return kind.startsWith('screwed') ? 'screwedBack' : null;
}

/** The kinds a case knife opens, for which the spot matters. */
export const KNIFE_KINDS: readonly BackKind[] = ['snap-on', 'opens from the front'];
