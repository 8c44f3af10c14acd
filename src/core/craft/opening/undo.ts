import {
  type BackKind,
  backs,
  clockWords,
  type PanelHeldBy,
  panelLayers,
  turnedBack,
  workedFrom,
} from '../cases';
import { capital } from '../judgement';
import { toBeNoted } from '../parts';
import type { OpenerChoice } from './openerChoice';
import { part, type PlanQuestion, type PlanStep, step } from './planStep';

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
export function asFoundStep({ parts }: PlanQuestion['schools']): PlanStep {
  return step(
    'as-found',
    'Photograph the inside as found',
    `Do this before you touch anything inside. Show marks of earlier repairs and where each loose part lies. Small parts: ${parts}.`,
  );
}

const RING = part('gasket', 'rim of the back');

const settingWords = ({ settings }: OpenerChoice): string =>
  settings.map(({ what, value }) => `${what}: ${value}`).join('. ');

/** Where the knife goes in, as far as it is known. */
function knifeWords({ spot }: OpenerChoice): string {
  return spot?.clock ? ` in at ${clockWords(spot.clock, spot.from)}` : '';
}

/** Springs that may lie beneath: not on the tray before anybody saw them. */
function springsOf({ back, functions }: PlanQuestion): readonly string[] {
  return [
    ...(functions.includes('alarm') ? ['a buzzer spring'] : []),
    ...(back.pusherClocks.length > 0
      ? [`springs at the pushers, ${clockWords(back.pusherClocks, back.seenFrom)}`]
      : []),
  ];
}

/** With the wrench, then by hand. */
function unscrewed(question: PlanQuestion): readonly PlanStep[] {
  const { back, opener } = question;
  const settings = settingWords(opener);
  const { caution } = backs[back.kind];
  return [
    step(
      'set',
      `Set ${opener.opener}`,
      settings || 'Set it to the measurements of this back. It should fit snugly without binding.',
    ),
    step('turn', 'Press down and turn', 'Press down first, then turn. Lift the tool off straight.', caution),
    step(
      'by-hand',
      opener.spinOff ? 'Spin it off' : 'Unscrew by hand',
      `${spunOff(opener)} hand. If your fingers slip, push with a wooden stick in a notch. If it binds again, note the cause: thread, dirt or ring.`,
      null,
      [part('back', toBeNoted('one lettering up')), RING],
    ),
  ];
}

/** With a die in its holder. */
function unscrewedWithDie(question: PlanQuestion): readonly PlanStep[] {
  const { back, opener } = question;
  const settings = settingWords(opener);
  const { caution } = backs[back.kind];
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
      [part('back', toBeNoted('one lettering up')), RING],
    ),
  ];
}

/** Each screw eased before any comes out. */
function plateOff(question: PlanQuestion): readonly PlanStep[] {
  const { back, opener } = question;
  const { caution } = backs[back.kind];
  const springs = springsOf(question);
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
      [part('plate', toBeNoted('which way its print faces')), RING],
    ),
  ];
}

/** With a knife at the rim. */
function snapOff(question: PlanQuestion): readonly PlanStep[] {
  const { back, opener } = question;
  const { caution } = backs[back.kind];
  const spotIn = knifeWords(opener);
  return [
    step(
      'knife',
      `${capital(opener.opener)}${spotIn}`,
      'Push in no deeper than the rim and twist, then work along the seam.',
      caution,
    ),
    step('lift', 'Lift the back', 'Note where the notch in the back sits over the stem.', null, [
      part('back', toBeNoted('notch over the stem')),
      RING,
    ]),
  ];
}

/** The bezel, then dial and movement through the front. */
function bezelOff(question: PlanQuestion): readonly PlanStep[] {
  const { back, opener, schools } = question;
  const { caution } = backs[back.kind];
  const spotIn = knifeWords(opener);
  return [
    step(
      'bezel',
      `${capital(opener.opener)} under the bezel${spotIn}`,
      'Twist the blade, never lever it: the crystal is held by the bezel you lift.',
      caution,
      [part('bezel', toBeNoted('12 o’clock, seen from the dial')), RING],
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
}

/** A hatch of its own over the cell. */
function hatchOff(question: PlanQuestion): readonly PlanStep[] {
  const { back, opener } = question;
  const { caution } = backs[back.kind];
  const pried = back.hatchOpens === 'pried';
  const known = back.hatchOpens !== null || back.slotLengthMm !== null;
  return [
    step('mark', 'Mark the angle of the hatch', 'Take a photo, or draw a thin line across hatch and case.'),
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

/** Whatever holds the panel, one after another. */
function panelOff(question: PlanQuestion): readonly PlanStep[] {
  const { back } = question;
  const { caution } = backs[back.kind];
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

const UNDONE: Readonly<Record<BackKind, (question: PlanQuestion) => readonly PlanStep[]>> = {
  'screwed, notched': unscrewed,
  'screwed, round holes': unscrewed,
  'screwed, patterned': unscrewedWithDie,
  'plate on screws': plateOff,
  'snap-on': snapOff,
  'opens from the front': bezelOff,
  'battery hatch': hatchOff,
  'latched panel': panelOff,
};

/** How the back itself comes off. Every position of this order is seen from the side the hand works on. */
export function openSteps(question: PlanQuestion): readonly PlanStep[] {
  const { back } = question;
  return UNDONE[back.kind]({ ...question, back: turnedBack(back, workedFrom(back.kind)) });
}

/** What lies right beneath the back: a cover with a seal of its own, or a plain one against dust. */
export function innerSteps({ back, innerCovers }: PlanQuestion): PlanStep[] {
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
