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
          'Spring bar out at the clasp',
          'Note which hole it sat in, cover it with a fingertip, press it in with the bar tool.',
          'It jumps: shield it, and look away from above it.',
          [part('spring bar', toBeNoted('at the clasp, hole'))],
        ),
      ];
    case 'closed bracelet, link pins':
      return [
        step(
          'bracelet',
          'One link pin out',
          'Punch along the arrow inside the link; in again against it.',
          'Against the arrow the pin’s split end spreads and jams in the link.',
          [part('bracelet pin', toBeNoted('link beside the clasp, arrow'))],
        ),
      ];
    case 'bracelet that opens flat':
      return [step('bracelet', 'Lay the bracelet flat', 'Clasp open, both halves clear of the back.')];
    case 'strap on spring bars':
      return isTurned(kind) || (lipClock === null && kind === 'snap-on')
        ? [
            step(
              'bracelet',
              'Strap off',
              isTurned(kind)
                ? 'The holder takes the bare case: both bars out with the bar tool.'
                : 'No opening mark is seen with the strap on: take it off before deciding.',
              'A bar tool that slips scores the lug: pull toward the strap, not the case.',
              [part('spring bar', 'at 12 and at 6 o’clock', 2)],
            ),
          ]
        : [step('bracelet', 'Fold the strap aside', 'Both halves clear of the back.')];
    case 'nothing on it':
      return [];
    case null:
      // Nobody saw what holds it: nothing of it is laid on the tray, and nothing is warned of.
      return isTurned(kind) || (lipClock === null && kind === 'snap-on')
        ? [
            step(
              'bracelet',
              'Strap or bracelet out of the way',
              isTurned(kind)
                ? 'The holder takes the bare case. Say among the measures how it is held, and its own steps stand here.'
                : 'No opening mark is known: look for one with strap or bracelet off. Say among the measures how it is held.',
            ),
          ]
        : [step('bracelet', 'Strap or bracelet aside', 'Both halves clear of the back.')];
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
            'The owner keeps it: work from the rim, no tool over its middle.',
          ),
        ]
      : []),
    ...(delicate || schools.protection === 'film'
      ? [
          step(
            'film',
            'Film over the back',
            back.coating === 'coated'
              ? 'Two layers, cut free at the notches: what is under a coating shows through one scratch.'
              : back.coating === 'plastic'
                ? 'Low tack, so that it lifts no print.'
                : 'Smooth, cut free where the tool goes in.',
            back.coating === 'coated' ? 'A coating cannot be polished out: a slip is for good.' : null,
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
        ? ` Measure the ${thing} across: the holder fits the ${thing}${thing === 'case' ? ', not the back' : ''}.`
        : ` None of this shop takes ${figure(acrossMm)} mm.`,
  };
}

function holdSteps({ back, tools, movementMm }: PlanQuestion): PlanStep[] {
  if (back.kind === 'opens from the front') {
    const { name, why } = holderWords('the movement', movementMm, tools);
    return [
      step(
        'hold',
        `${capital(name)} at hand`,
        `Dust off the mat, cover for the dial ready: dial and hands come out.${why}`,
        'Dust on the dial stays under the crystal.',
      ),
    ];
  }
  if (isTurned(back.kind)) {
    const { name, why } = holderWords('the case', back.caseMm, tools);
    return [
      step('hold', `Into ${name}`, `Crown and pushers free of the jaws, dial side on a soft pad.${why}`),
    ];
  }
  if (back.kind === 'latched panel' || back.coating === 'plastic')
    return [
      step('hold', 'Brace it on the mat', 'Dial side down on a soft cushion, the case held at both sides.'),
    ];
  return [step('hold', 'On the case cushion', 'Dial side down, crown away from the hand that pushes.')];
}

/** Where the way in ends: nothing of this shop opens it, or its measures cannot be true. */
function stopSteps({ verdict, reasons, toBuy }: OpenerChoice): PlanStep[] {
  return verdict === 'impossible'
    ? [step('stop', 'Measure again', reasons.join(' '))]
    : [
        step(
          'stop',
          'Stop here: refer it, or buy',
          `Nothing of this shop opens it. Wanted: ${toBuy ?? 'its own opener'}.`,
          'What nearly fits rounds the flats and scores the back, and then nobody opens it.',
        ),
      ];
}

const PANEL_STEPS: Readonly<Record<PanelHeldBy, readonly [id: string, what: string, how: string]>> = {
  catches: ['catches', 'Catches, one after another', 'A blunt pin at each, from the side with the nick.'],
  'sliding lock': [
    'lock',
    'Slide the lock home to open',
    'With the thumbs, before the panel is pressed anywhere; where it is stiff, with a blunt pin, braced against the bench.',
  ],
  adhesive: ['unstick', 'Loosen the adhesive', 'Warmed by hand, a blunt blade in at one corner, then along.'],
};

/** How a back that turns comes off once it is loose. */
const spunOff = ({ spinOff }: OpenerChoice): string =>
  spinOff ? `${capital(spinOff.name)} on it, or by` : 'By';

/** Before anything inside is touched. */
function asFoundStep({ parts }: PlanQuestion['schools']): PlanStep {
  return step(
    'as-found',
    'Photograph it as it is',
    `Before anything inside is touched: marks of earlier hands, the lie of each loose part. Small parts: ${parts}.`,
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
          settings || 'To the measures of this back, snug, eased when it binds.',
        ),
        step(
          'turn',
          'Press down and turn',
          'Weight first, then the turn; lift the tool off straight.',
          caution,
        ),
        step(
          'by-hand',
          opener.spinOff ? 'Spin it off' : 'Unscrew by hand',
          `${spunOff(opener)} hand, a wooden stick in a notch if fingers slip. Where it binds again, note it: thread, dirt, ring.`,
          null,
          [part('back', toBeNoted('one lettering up')), ring],
        ),
      ];
    case 'screwed, patterned':
      return [
        step(
          'set',
          `Put together ${opener.opener}`,
          settings || 'The die that goes over without shake.',
          caution,
        ),
        step('turn', 'Press down and turn', 'The die flat on the back, weight before torque.'),
        step('by-hand', 'Unscrew by hand', 'Lift the die off straight, then by the fingertips.', null, [
          part('back', toBeNoted('one lettering up')),
          ring,
        ]),
      ];
    case 'plate on screws': {
      const count = back.screwCount;
      return [
        step(
          'screws',
          count === null ? 'The screws, crosswise' : `${count} screws, crosswise`,
          `${opener.opener}: each a quarter turn first, then out, each to its own place on the tray.${count === null ? ' Count them, and note them there.' : ''}`,
          back.screwHead === null
            ? null
            : `${back.screwHead === 'slotted' ? 'A blade that climbs out of a worn slot' : 'A tip that climbs out of a worn cross'} runs across the plate: press, then turn.`,
          count === null ? [] : [part('screw', `1 to ${count}, clockwise from 12, seen from behind`, count)],
        ),
        step(
          'plate',
          'Lift the plate level',
          `Look at what lies beneath before anything moves${springs.length > 0 ? `: ${springs.join(' and ')} may lie there. Note on the tray what comes off` : ''}.`,
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
          'Push and twist, no deeper than the rim; then along the seam.',
          caution,
        ),
        step('lift', 'Lift the back', 'Note where its notch stands over the stem.', null, [
          part('back', toBeNoted('notch over the stem')),
          ring,
        ]),
      ];
    case 'opens from the front':
      return [
        step(
          'bezel',
          `${capital(opener.opener)} under the bezel${spotIn}`,
          'Twist, never lever: the crystal sits in what lifts.',
          caution,
          [part('bezel', toBeNoted('12 o’clock, seen from the dial')), ring],
        ),
        asFoundStep(schools),
        step(
          'movement-out',
          'Dial and movement out together',
          'Crown pulled or released as the calibre wants; by the dial’s rim into the holder.',
          'Fingers on the dial’s face mark it for good: by the rim only.',
          [part('movement', 'with dial and hands, face up in its holder')],
        ),
      ];
    case 'battery hatch': {
      const pried = back.hatchOpens === 'pried';
      const known = back.hatchOpens !== null || back.slotLengthMm !== null;
      return [
        step('mark', 'Mark the angle of the hatch', 'A photo or a thin line across hatch and case.'),
        step(
          'hatch',
          !known
            ? 'See how the hatch opens'
            : pried
              ? `Lift the hatch with ${opener.opener}`
              : `Turn the hatch with ${opener.opener}`,
          !known
            ? 'One with a slot is turned, one with a nick at its edge is pried: say which, and its own step stands here.'
            : pried
              ? 'In at the nick, twisted until it lets go; up with the seal still on it.'
              : 'As its sign shows, out with the seal still on it.',
          known ? caution : null,
          [part('hatch', toBeNoted('reference angle')), part('gasket', 'on the hatch')],
        ),
      ];
    }
    case 'latched panel': {
      const layers = panelLayers(back);
      return [
        ...layers.map((layer) => step(...PANEL_STEPS[layer])),
        step('panel', 'Lift the panel', 'Level, one edge first; nothing beneath is pulled along.', caution, [
          part('panel', toBeNoted('which edge was up')),
          ...(layers.includes('adhesive') ? [part('adhesive', 'on the panel, covered')] : []),
        ]),
      ];
    }
  }
}

/** What lies right beneath the back: a cover with a seal of its own, or a plain one against dust. */
function innerSteps({ back, innerCovers }: PlanQuestion): PlanStep[] {
  const turned = back.dustCover === 'turned in';
  const how = turned ? 'Turned out with a pin in its holes, no force down.' : 'Blunt, at its tab.';
  if (innerCovers > 0)
    return [
      step('inner-cover', 'Inner cover off', `${how} Its own seal comes with it.`, null, [
        part('inner cover', toBeNoted('tab'), innerCovers),
        part('gasket', 'on the inner cover', innerCovers),
      ]),
    ];
  return back.dustCover === null
    ? []
    : [
        step(
          'dust-cover',
          'Dust cover off',
          `${how} It has no seal: it keeps dust off, not water.`,
          'The movement lies right beneath: a blade that slips through goes into it.',
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
            `As last time: ${lastTime.openedWith}${lastTime.setting && `, ${lastTime.setting}`}`,
            lastTime.notes.length > 0
              ? lastTime.notes.join(' · ')
              : 'It opened so; nothing was noted against it.',
          ),
        ]
      : []),
    step('clean', 'Clean the rim', 'Outside and seam, dry: dirt at the rim falls in as the back lifts.'),
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
