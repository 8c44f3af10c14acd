import { capital, figure } from '../judgement';
import type { FunctionKind } from '../movements';
import { type Part, type Served, serves } from '../parts';
import type { Schools } from '../policy';
import type { ShopTools } from '../tools';
import { backs, type MeasuredBack } from '../cases';
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
          [part('spring bar', 'at the clasp, hole to be noted')],
        ),
      ];
    case 'closed bracelet, link pins':
      return [
        step(
          'bracelet',
          'One link pin out',
          'Punch along the arrow inside the link; in again against it.',
          'Against the arrow the pin’s split end spreads and jams in the link.',
          [part('bracelet pin', 'link beside the clasp, arrow to be noted')],
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

function holdSteps({ back, tools }: PlanQuestion): PlanStep[] {
  const across = back.diameterMm;
  const caseHolder = tools.holders.find(
    (holder) =>
      holder.holds === 'the case' &&
      (across === null ||
        ((holder.fromMm === null || across >= holder.fromMm) &&
          (holder.toMm === null || across <= holder.toMm))),
  );
  const movementHolder = tools.holders.find((holder) => holder.holds === 'the movement');
  if (back.kind === 'opens from the front')
    return [
      step(
        'hold',
        `${capital(movementHolder?.name ?? 'a movement holder')} at hand`,
        'Dust off the mat, cover for the dial ready: dial and hands come out.',
        'Dust on the dial stays under the crystal.',
      ),
    ];
  if (isTurned(back.kind))
    return [
      step(
        'hold',
        `Into ${caseHolder ? `the ${caseHolder.name}` : 'a fixed case holder'}`,
        'Crown and pushers free of the jaws, dial side on a soft pad.',
      ),
    ];
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

function openSteps({ back, opener, functions }: PlanQuestion): PlanStep[] {
  const settings = opener.settings.map(({ what, value }) => `${what}: ${value}`).join('. ');
  const caution = backs[back.kind].caution;
  const ring = part('gasket', 'rim of the back');
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
          'Unscrew by hand',
          'A wooden stick in a notch if fingers slip. Where it binds again, note it: thread, dirt, ring.',
          null,
          [part('back', 'one lettering up, to be noted'), ring],
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
          part('back', 'one lettering up, to be noted'),
          ring,
        ]),
      ];
    case 'plate on screws': {
      const count = back.screwCount ?? 4;
      return [
        step(
          'screws',
          `${count} screws, crosswise`,
          `${opener.opener}: each a quarter turn first, then out, each to its own place on the tray.`,
          'A blade that climbs out of a worn slot runs across the plate: press, then turn.',
          [part('screw', `1 to ${count}, clockwise from 12`, count)],
        ),
        step('plate', 'Lift the plate level', 'Look at what lies beneath before anything moves.', caution, [
          part('plate', 'print facing out'),
          ring,
          ...(functions.includes('alarm') ? [part('buzzer spring', 'beneath the plate, upright')] : []),
          ...(back.pusherClocks.length > 0
            ? [
                part(
                  'spring',
                  `at the pushers, ${back.pusherClocks.map((clock) => figure(clock, 1)).join(', ')}`,
                  back.pusherClocks.length,
                ),
              ]
            : []),
        ]),
      ];
    }
    case 'snap-on':
      return [
        step(
          'knife',
          `${capital(opener.opener)}${opener.spot === null || opener.spot.clock === null ? '' : ` in at ${figure(opener.spot.clock, 1)} o’clock`}`,
          'Push and twist, no deeper than the rim; then along the seam.',
          caution,
        ),
        step('lift', 'Lift the back', 'Note where its notch stands over the stem.', null, [
          part('back', 'notch over the stem, to be noted'),
          ring,
        ]),
      ];
    case 'opens from the front':
      return [
        step(
          'bezel',
          `${capital(opener.opener)}${opener.spot === null || opener.spot.clock === null ? '' : ` at ${figure(opener.spot.clock, 1)} o’clock`}, under the bezel`,
          'Twist, never lever: the crystal sits in what lifts.',
          caution,
          [part('bezel', '12 o’clock to be noted'), ring],
        ),
        step(
          'movement-out',
          'Dial and movement out together',
          'Crown pulled or released as the calibre wants; by the dial’s rim into the holder.',
          'Fingers on the dial’s face mark it for good: by the rim only.',
          [part('movement', 'with dial and hands, face up in its holder')],
        ),
      ];
    case 'battery hatch':
      return [
        step('mark', 'Mark the angle of the hatch', 'A photo or a thin line across hatch and case.'),
        step('hatch', `Turn the hatch with ${opener.opener}`, 'Out with the seal still on it.', caution, [
          part('hatch', 'reference angle to be noted'),
          part('gasket', 'on the hatch'),
        ]),
      ];
    case 'latched panel':
      return [
        step(
          'panel',
          back.panelHeldBy === 'adhesive'
            ? 'Lift the panel from one corner'
            : back.panelHeldBy === 'sliding lock'
              ? 'Slide the lock, lift the panel'
              : 'Catches, one after another',
          settings || 'Thumbs or a blunt pin, braced.',
          caution,
          [
            part('panel', 'which edge was up, to be noted'),
            ...(back.panelHeldBy === 'adhesive' ? [part('adhesive', 'on the panel, covered')] : []),
          ],
        ),
      ];
  }
}

/**
 * The order of work that opens this watch, from its own facts: what is cleaned, taken off, protected, held, set and
 * turned, each step with its one caution where it has one, and what comes off where. Never throws; where facts are missing a
 * step says so in its words. Source: bench practice, shop policy.
 */
export function openingPlan(question: PlanQuestion): OpeningPlan {
  const { back, opener, lastTime, innerCovers, schools } = question;
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
          step(
            'as-found',
            'Photograph it as it is',
            `Before anything inside is touched: marks of earlier hands, the lie of each loose part. Small parts: ${schools.parts}.`,
          ),
          ...(innerCovers > 0
            ? [
                step('inner-cover', 'Inner cover off', 'Blunt, at its tab; its own seal with it.', null, [
                  part('inner cover', 'tab to be noted', innerCovers),
                  part('gasket', 'on the inner cover', innerCovers),
                ]),
              ]
            : []),
        ]),
  ];
  return { steps, stops };
}
