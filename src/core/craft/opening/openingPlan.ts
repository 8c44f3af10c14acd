import { capital, figure } from '../judgement';
import type { FunctionKind } from '../movements';
import { type Part, type Served, serves, toBeNoted } from '../parts';
import type { Schools } from '../policy';
import type { ShopTools } from '../tools';
import {
  backs,
  clockWords,
  type MeasuredBack,
  panelLayers,
  type PanelHeldBy,
  turnedBack,
  workedFrom,
} from '../cases';
import type { OpenerChoice } from './chooseOpener';
export interface PlanPart {
  readonly part: Part;
  readonly count: number;
  readonly position: string;
  readonly serves: readonly Served[];
}

export interface PlanStep {
  /** Stable as long as the facts are: a tick names it. */
  readonly id: string;
  readonly what: string;
  readonly how: string;
  /** The one hazard of this step, with its reason. */
  readonly caution: string | null;
  /** What comes off here and goes on the tray. */
  readonly off: readonly PlanPart[];
}

export interface OpeningPlan {
  readonly steps: readonly PlanStep[];
  /** Whether the way in ends before the watch is open: nothing of this shop opens it, or its measures cannot be. */
  readonly stops: boolean;
}

export interface PlanQuestion {
  readonly back: MeasuredBack;
  readonly opener: OpenerChoice;
  readonly tools: ShopTools;
  readonly schools: Pick<Schools, 'protection' | 'parts'>;
  /** The owner keeps the film the watch was sold with. */
  readonly keepsFilm: boolean;
  /** Of the movement, as far as it is known. */
  readonly functions: readonly FunctionKind[];
  /** The larger measure of the movement; null where it is not known. */
  readonly movementMm: number | null;
  /** Seals counted: a cover inside wants its own. */
  readonly innerCovers: number;
  /** How it was opened last, and what was noted then. */
  readonly lastTime: {
    readonly openedWith: string;
    readonly setting: string;
    readonly notes: readonly string[];
  } | null;
}

function part(name: Part, position: string, count = 1): PlanPart {
  return { part: name, count, position, serves: serves(name) };
}

function step(
  id: string,
  what: string,
  how: string,
  caution: string | null = null,
  off: readonly PlanPart[] = [],
): PlanStep {
  return { id, what, how, caution, off };
}

/** Backs that are turned, and so want the case held. */
function isTurned(kind: MeasuredBack['kind']): boolean {
  return kind.startsWith('screwed');
}

function braceletSteps({ bracelet, kind, lipClock }: MeasuredBack): PlanStep[] {
  switch (bracelet) {
    case 'closed bracelet, spring bar at the clasp':
      return [
        step(
          'bracelet',
          'Take out the spring bar at the clasp',
          'Note which hole it sits in. Cover it with a fingertip and press it in with the bar tool.',
          'The bar can jump out. Shield it with a finger, and keep your face away from above it.',
          [part('spring bar', toBeNoted('at the clasp, hole'))],
        ),
      ];
    case 'closed bracelet, link pins':
      return [
        step(
          'bracelet',
          'Take out one link pin',
          'Punch the pin out in the direction of the arrow inside the link. It goes back in against the arrow.',
          'If you punch against the arrow, the split end of the pin spreads and jams in the link.',
          [part('bracelet pin', toBeNoted('link beside the clasp, arrow'))],
        ),
      ];
    case 'bracelet that opens flat':
      return [
        step('bracelet', 'Lay the bracelet flat', 'Open the clasp and fold both halves away from the back.'),
      ];
    case 'strap on spring bars':
      return isTurned(kind) || (lipClock === null && kind === 'snap-on')
        ? [
            step(
              'bracelet',
              'Take the strap off',
              isTurned(kind)
                ? 'The case goes into the holder without its strap. Take out both spring bars with the bar tool.'
                : 'No opening mark is visible with the strap on. Take the strap off before you decide where to open.',
              'A bar tool that slips scratches the lug. Pull towards the strap, not towards the case.',
              [part('spring bar', 'at 12 and at 6 o’clock', 2)],
            ),
          ]
        : [step('bracelet', 'Fold the strap aside', 'Fold both halves of the strap away from the back.')];
    case 'nothing on it':
      return [];
    case null:
      // Nobody saw what holds it: nothing of it is laid on the tray, and nothing is warned of.
      return isTurned(kind) || (lipClock === null && kind === 'snap-on')
        ? [
            step(
              'bracelet',
              'Move the strap or bracelet out of the way',
              isTurned(kind)
                ? 'The case goes into the holder without its strap. Record how the strap is attached in “The back, measured”. Its steps then appear here.'
                : 'No opening mark is recorded. Take the strap or bracelet off and look for one. Record how it is attached in “The back, measured”.',
            ),
          ]
        : [step('bracelet', 'Fold the strap or bracelet aside', 'Fold both halves away from the back.')];
  }
}

function protectionSteps({ back, schools, keepsFilm }: PlanQuestion): PlanStep[] {
  const delicate = back.coating === 'coated' || back.coating === 'polished' || back.coating === 'plastic';
  return [
    ...(keepsFilm
      ? [
          step(
            'owners-film',
            'Leave the owner’s film on',
            'The owner wants to keep it. Work from the rim, and keep tools off the middle of the film.',
          ),
        ]
      : []),
    ...(delicate || schools.protection === 'film'
      ? [
          step(
            'film',
            'Protect the back with film',
            back.coating === 'coated'
              ? 'Use two layers and cut them away at the notches. A single scratch shows the metal under the coating.'
              : back.coating === 'plastic'
                ? 'Use film with low tack, so that it does not pull the print off.'
                : 'Smooth it down, and cut it away where the tool goes in.',
            back.coating === 'coated' ? 'A scratch in a coating cannot be polished out.' : null,
          ),
        ]
      : []),
  ];
}

/** A holder of the shop that surely takes something so wide; of a measure nobody took none is sure but one without limits. */
function holderFor(holds: 'the case' | 'the movement', acrossMm: number | null, tools: ShopTools) {
  return tools.holders.find(
    ({ holds: held, fromMm, toMm }) =>
      held === holds &&
      (acrossMm === null
        ? fromMm === null && toMm === null
        : (fromMm === null || acrossMm >= fromMm) && (toMm === null || acrossMm <= toMm)),
  );
}

/** Which holder, and what to do where none is sure. */
function holderWords(holds: 'the case' | 'the movement', acrossMm: number | null, tools: ShopTools) {
  const holder = holderFor(holds, acrossMm, tools);
  const thing = holds === 'the case' ? 'case' : 'movement';
  return {
    name: holder ? `the ${holder.name}` : `a ${thing} holder`,
    why: holder
      ? ''
      : acrossMm === null
        ? ` Measure the ${thing} across: the holder is chosen by the ${thing}${thing === 'case' ? ', not by the back' : ''}.`
        : ` No holder in this shop takes ${figure(acrossMm)} mm.`,
  };
}

function holdSteps({ back, tools, movementMm }: PlanQuestion): PlanStep[] {
  if (back.kind === 'opens from the front') {
    const { name, why } = holderWords('the movement', movementMm, tools);
    return [
      step(
        'hold',
        `Have ${name} ready`,
        `The dial and hands come out of this watch. Clear the mat of dust and have a dial cover ready.${why}`,
        'Dust on the dial stays visible under the crystal.',
      ),
    ];
  }
  if (isTurned(back.kind)) {
    const { name, why } = holderWords('the case', back.caseMm, tools);
    return [
      step(
        'hold',
        `Put the case into ${name}`,
        `Keep the crown and pushers clear of the jaws. Lay the dial side on a soft pad.${why}`,
      ),
    ];
  }
  if (back.kind === 'latched panel' || back.coating === 'plastic')
    return [
      step(
        'hold',
        'Hold the watch steady on the mat',
        'Lay it dial side down on a soft cushion and hold the case at both sides.',
      ),
    ];
  return [
    step(
      'hold',
      'Lay the watch on the case cushion',
      'Lay it dial side down, with the crown away from the hand that pushes.',
    ),
  ];
}

/** Where the way in ends: nothing of this shop opens it, or its measures cannot be true. */
function stopSteps({ verdict, reasons, toBuy }: OpenerChoice): PlanStep[] {
  return verdict === 'impossible'
    ? [step('stop', 'Measure again', reasons.join(' '))]
    : [
        step(
          'stop',
          'Stop: refer the watch, or buy the tool',
          `No tool in this shop opens this back. It needs ${toBuy ?? 'an opener made for it'}.`,
          'A tool that nearly fits rounds off the flats and scratches the back. After that nobody can open it.',
        ),
      ];
}

const PANEL_STEPS: Readonly<Record<PanelHeldBy, readonly [id: string, what: string, how: string]>> = {
  catches: [
    'catches',
    'Release the catches one by one',
    'Push each catch with a blunt pin. Start at the side with the nick.',
  ],
  'sliding lock': [
    'lock',
    'Slide the lock to open',
    'Push the lock with your thumbs before you press on the panel. If it is stiff, rest your hand on the bench and push the lock with a blunt pin.',
  ],
  adhesive: [
    'unstick',
    'Loosen the adhesive',
    'Warm it with your hand. Put a blunt blade in at one corner and work along the edge.',
  ],
};

/** How a back that turns comes off once it is loose. */
const spunOff = ({ spinOff }: OpenerChoice): string =>
  spinOff ? `Use the ${spinOff.name}, or turn it by` : 'Turn it by';

/** Before anything inside is touched. */
function asFoundStep({ parts }: PlanQuestion['schools']): PlanStep {
  return step(
    'as-found',
    'Photograph the inside as found',
    `Do this before you touch anything inside. Show marks of earlier repairs and where each loose part lies. Small parts: ${parts}.`,
  );
}

function openSteps({ back: asSeen, opener, functions, schools }: PlanQuestion): PlanStep[] {
  // Every position of this order is seen from the side the hand works on.
  const back = turnedBack(asSeen, workedFrom(asSeen.kind));
  const spot = opener.spot?.clock ?? null;
  const spotIn = spot === null ? '' : ` in at ${clockWords(spot, opener.spot?.from ?? null)}`;
  const settings = opener.settings.map(({ what, value }) => `${what}: ${value}`).join('. ');
  const caution = backs[back.kind].caution;
  const ring = part('gasket', 'rim of the back');
  // Not on the tray before anybody saw them.
  const springs = [
    ...(functions.includes('alarm') ? ['a buzzer spring'] : []),
    ...(back.pusherClocks.length > 0
      ? [`springs at the pushers, ${clockWords(back.pusherClocks, back.seenFrom)}`]
      : []),
  ];
  switch (back.kind) {
    case 'screwed, notched':
    case 'screwed, round holes':
      return [
        step(
          'set',
          `Set ${opener.opener}`,
          settings || 'Set it to the measurements of this back. It should fit snugly without binding.',
        ),
        step(
          'turn',
          'Press down and turn',
          'Press down first, then turn. Lift the tool off straight.',
          caution,
        ),
        step(
          'by-hand',
          opener.spinOff ? 'Spin it off' : 'Unscrew by hand',
          `${spunOff(opener)} hand. If your fingers slip, push with a wooden stick in a notch. If it binds again, note the cause: thread, dirt or ring.`,
          null,
          [part('back', toBeNoted('one lettering up')), ring],
        ),
      ];
    case 'screwed, patterned':
      return [
        step(
          'set',
          `Assemble ${opener.opener}`,
          settings || 'Use the die that fits over the back without play.',
          caution,
        ),
        step('turn', 'Press down and turn', 'Hold the die flat on the back. Press down before you turn.'),
        step(
          'by-hand',
          'Unscrew by hand',
          'Lift the die off straight, then unscrew the back with your fingertips.',
          null,
          [part('back', toBeNoted('one lettering up')), ring],
        ),
      ];
    case 'plate on screws': {
      const count = back.screwCount;
      return [
        step(
          'screws',
          count === null ? 'Undo the screws crosswise' : `Undo ${count} screws crosswise`,
          `Use ${opener.opener}. Loosen each screw a quarter turn first, then take them out. Give each its own place on the tray.${count === null ? ' Count them and note them there.' : ''}`,
          back.screwHead === null
            ? null
            : `${back.screwHead === 'slotted' ? 'The blade can slip out of a worn slot' : 'The tip can slip out of a worn cross'} and scratch the plate. Press down first, then turn.`,
          count === null ? [] : [part('screw', `1 to ${count}, clockwise from 12, seen from behind`, count)],
        ),
        step(
          'plate',
          'Lift the plate level',
          `Look at what is underneath before anything moves.${springs.length > 0 ? ` You may find ${springs.join(' and ')} there. Record on the tray what comes off.` : ''}`,
          caution,
          [part('plate', toBeNoted('which way its print faces')), ring],
        ),
      ];
    }
    case 'snap-on':
      return [
        step(
          'knife',
          `${capital(opener.opener)}${spotIn}`,
          'Push in no deeper than the rim and twist, then work along the seam.',
          caution,
        ),
        step('lift', 'Lift the back', 'Note where the notch in the back sits over the stem.', null, [
          part('back', toBeNoted('notch over the stem')),
          ring,
        ]),
      ];
    case 'opens from the front':
      return [
        step(
          'bezel',
          `${capital(opener.opener)} under the bezel${spotIn}`,
          'Twist the blade, never lever it: the crystal is held by the bezel you lift.',
          caution,
          [part('bezel', toBeNoted('12 o’clock, seen from the dial')), ring],
        ),
        asFoundStep(schools),
        step(
          'movement-out',
          'Take dial and movement out together',
          'Pull or release the crown as this calibre needs. Hold the dial by its rim and lay it in the holder.',
          'Fingerprints on the dial cannot be removed. Hold it by the rim only.',
          [part('movement', 'with dial and hands, face up in its holder')],
        ),
      ];
    case 'battery hatch': {
      const pried = back.hatchOpens === 'pried';
      const known = back.hatchOpens !== null || back.slotLengthMm !== null;
      return [
        step(
          'mark',
          'Mark the angle of the hatch',
          'Take a photo, or draw a thin line across hatch and case.',
        ),
        step(
          'hatch',
          !known
            ? 'See how the hatch opens'
            : pried
              ? `Lift the hatch with ${opener.opener}`
              : `Turn the hatch with ${opener.opener}`,
          !known
            ? 'A hatch with a slot is turned. A hatch with a nick at its edge is pried. Record which one it is: its step then appears here.'
            : pried
              ? 'Put the blade into the nick and twist until the hatch comes free. Lift it with the seal still on it.'
              : 'Turn it the way its marking shows. Lift it out with the seal still on it.',
          known ? caution : null,
          [part('hatch', toBeNoted('reference angle')), part('gasket', 'on the hatch')],
        ),
      ];
    }
    case 'latched panel': {
      const layers = panelLayers(back);
      return [
        ...layers.map((layer) => step(...PANEL_STEPS[layer])),
        step(
          'panel',
          'Lift the panel',
          'Lift one edge first and keep it level. Make sure nothing underneath comes up with it.',
          caution,
          [
            part('panel', toBeNoted('which edge was up')),
            ...(layers.includes('adhesive') ? [part('adhesive', 'on the panel, covered')] : []),
          ],
        ),
      ];
    }
  }
}

/** What lies right beneath the back: a cover with a seal of its own, or a plain one against dust. */
function innerSteps({ back, innerCovers }: PlanQuestion): PlanStep[] {
  const turned = back.dustCover === 'turned in';
  const how = turned
    ? 'Turn it out with a pin in its holes, without pressing down.'
    : 'Lift it by its tab with a blunt tool.';
  if (innerCovers > 0)
    return [
      step('inner-cover', 'Take the inner cover off', `${how} Its own seal comes off with it.`, null, [
        part('inner cover', toBeNoted('tab'), innerCovers),
        part('gasket', 'on the inner cover', innerCovers),
      ]),
    ];
  return back.dustCover === null
    ? []
    : [
        step(
          'dust-cover',
          'Take the dust cover off',
          `${how} It has no seal. It keeps out dust, not water.`,
          'The movement is directly underneath. A blade that slips through damages it.',
          [part('inner cover', toBeNoted('plain, tab'))],
        ),
      ];
}

/**
 * The order of work that opens this watch, from its own facts: what is cleaned, taken off, protected, held, set and
 * turned, each step with its one caution where it has one, and what comes off where. Never throws; where facts are missing a
 * step says so in its words. Source: bench practice, shop policy.
 */
export function openingPlan(question: PlanQuestion): OpeningPlan {
  const { back, opener, lastTime, schools } = question;
  const stops = opener.verdict === 'refer or buy' || opener.verdict === 'impossible';
  const steps: PlanStep[] = [
    ...(lastTime
      ? [
          step(
            'last-time',
            `Open it as last time: ${lastTime.openedWith}${lastTime.setting && `, ${lastTime.setting}`}`,
            lastTime.notes.length > 0
              ? lastTime.notes.join(' · ')
              : 'It opened this way last time. No problem was noted.',
          ),
        ]
      : []),
    step(
      'clean',
      'Clean the rim',
      'Clean the outside and the seam with a dry cloth: dirt at the rim falls in when the back lifts.',
    ),
    ...(stops
      ? stopSteps(opener)
      : [
          ...braceletSteps(back),
          ...protectionSteps(question),
          ...holdSteps(question),
          ...openSteps(question),
          // From the front the movement comes out on the way: there it stands before that.
          ...(back.kind === 'opens from the front' ? [] : [asFoundStep(schools)]),
          ...innerSteps(question),
        ]),
  ];
  return { steps, stops };
}
