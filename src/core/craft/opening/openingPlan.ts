import { figure } from '../judgement';
import { toBeNoted } from '../parts';
import type { ShopTools } from '../tools';
import type { MeasuredBack } from '../cases';
import type { OpenerChoice } from './openerChoice';
import { part, type PlanQuestion, type PlanStep, step } from './planStep';
import { asFoundStep, innerSteps, openSteps } from './undo';

export interface OpeningPlan {
  readonly steps: readonly PlanStep[];
  /** Whether the way in ends before the watch is open: nothing of this shop opens it, or its measures cannot be. */
  readonly stops: boolean;
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
                ? 'The case goes into the holder without its strap. Record how the strap is attached in “Case back, measured”. Its steps then appear here.'
                : 'No opening mark is recorded. Take the strap or bracelet off and look for one. Record how it is attached in “Case back, measured”.',
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
