import {
  type BackKind,
  backs,
  clockWords,
  contradictions,
  type PanelHeldBy,
  panelLayers,
  type PryQuestion,
  prySpot,
  workedFrom,
} from '../cases';
import { figure } from '../judgement';
import type { Blade, BladeForm, ShopTools } from '../tools';
import { byWrench } from './byWrench';
import { chooseDriver, type DriverQuestion, fitOpenerDie, headsWanted } from './fitTools';
import { NONE, type OpenerChoice, opens, type Question, type SettingLine, unknown } from './openerChoice';

/** What is asked about where a tool goes in at the rim of this back. */
export function pryQuestion({ back, crownClock, noCrown }: Omit<Question, 'tools'>): PryQuestion {
  const { kind, lipClock, pusherClocks, seenFrom } = back;
  return { from: workedFrom(kind), crownClock, noCrown, lipClock, pusherClocks, seenFrom };
}

/** What undoes each way of holding a panel, and what the hand minds. */
const PANEL_WAYS: Readonly<
  Record<
    PanelHeldBy,
    { readonly forms: readonly BladeForm[]; readonly setting: SettingLine; readonly reason: string }
  >
> = {
  catches: {
    forms: ['blunt pin'],
    setting: { what: 'Catches', value: 'release one after another, starting at the side with the nick' },
    reason: 'Use a blunt pin, and rest your hand on the bench so that it cannot slip.',
  },
  'sliding lock': {
    forms: [],
    setting: { what: 'Lock', value: 'slide it to open before you press on the panel' },
    reason:
      'Slide the lock with your thumbs. If it is stiff, rest your hand on the bench and push the lock with a blunt pin. Do not pry at the panel while it is locked: the edge of the panel breaks.',
  },
  adhesive: {
    forms: ['blunt blade'],
    setting: { what: 'Adhesive', value: 'warm it with your hand, then lift it from one corner' },
    reason: 'The adhesive has to hold again. Cover it so that no dust sticks to it, or renew it.',
  },
};

/** A die over the whole back, in its holder. */
function byDie({ back, tools }: Question): OpenerChoice {
  const { flatCount, acrossMm, toothForm } = back;
  if (flatCount === null || acrossMm === null)
    return unknown(back, ['flatCount', 'acrossMm'], 'Count the flats and measure across them.');
  if (toothForm === null)
    return unknown(
      back,
      ['toothForm'],
      'Look at the teeth: flat facets, square or rounded. A die of the same size with other teeth does not fit.',
    );
  const fit = fitOpenerDie({ flatCount, acrossMm, toothForm }, tools.openerDies, tools.holders);
  if (fit.verdict !== 'fits' || !fit.die)
    return {
      ...NONE,
      verdict: 'refer or buy',
      opener: 'No die of this shop',
      reasons: fit.reasons,
      working: fit.working,
      toBuy:
        fit.verdict === 'no holder'
          ? `a holder for the shank ${fit.die?.shank ?? ''}`
          : `a die of ${flatCount} flats, ${figure(acrossMm)} mm across, ${toothForm}`,
    };
  return {
    ...NONE,
    verdict: 'opens with',
    opener: fit.holder ? `${fit.die.name} in ${fit.holder.name}` : fit.die.name,
    toolIds: [fit.die.id, ...(fit.holder ? [fit.holder.id] : [])],
    settings: fit.holder
      ? [
          { what: 'Die', value: `${fit.die.name}, ${figure(fit.die.acrossMm)} mm` },
          { what: 'Holder', value: `${fit.holder.name}, shank ${fit.holder.shank ?? ''}` },
        ]
      : [{ what: 'Key', value: `${fit.die.name}, ${figure(fit.die.acrossMm)} mm` }],
    reasons: fit.reasons,
    working: fit.working,
  };
}

/** A screwdriver for the heads of a plate. */
function byDriver({ back, tools }: Question): OpenerChoice {
  const { slotLengthMm, slotWidthMm, crossSize, screwHead } = back;
  const wanted = headsWanted(back);
  if (wanted.length > 0)
    return unknown(
      back,
      wanted,
      wanted[0] === 'screwHead'
        ? 'Record the screw heads: slotted or cross-head.'
        : wanted[0] === 'crossSize'
          ? 'Record the cross size that fills the heads.'
          : 'Measure the slot of a screw, length and width.',
    );
  const heads: DriverQuestion =
    screwHead === 'cross-head' && crossSize !== null
      ? { crossSize }
      : { lengthMm: slotLengthMm ?? 0, widthMm: slotWidthMm ?? 0 };
  const fit = chooseDriver(heads, tools.drivers);
  const size =
    'crossSize' in heads
      ? `for cross-heads ${heads.crossSize}`
      : `for a slot of ${figure(heads.lengthMm)} × ${figure(heads.widthMm)} mm`;
  return fit.driver
    ? {
        ...NONE,
        verdict: 'opens with',
        opener: fit.driver.name,
        toolIds: [fit.driver.id],
        settings: [
          'crossSize' in heads
            ? { what: 'Tip', value: heads.crossSize }
            : {
                what: 'Blade',
                value: `${figure(fit.driver.bladeWidthMm ?? 0)} × ${figure(fit.driver.bladeThicknessMm ?? 0)} mm`,
              },
        ],
        reasons: fit.reasons,
        working: fit.working,
      }
    : {
        ...NONE,
        verdict: 'refer or buy',
        opener: 'No screwdriver of this shop',
        reasons: fit.reasons,
        working: fit.working,
        toBuy: `a screwdriver ${size}`,
      };
}

/** A knife at the rim. */
function byKnife(question: Question): OpenerChoice {
  const spot = prySpot(pryQuestion(question));
  const at = { spot, reasons: spot.reasons, working: spot.working };
  if (spot.clock === null)
    return {
      ...NONE,
      ...at,
      verdict: 'not yet known',
      opener: backs[question.back.kind].opener,
      wanted: spot.verdict === 'not yet known' ? [] : ['lipClock'],
    };
  return byBlade(question.tools, ['case knife'], {
    ...at,
    settings: [{ what: 'Knife in at', value: clockWords(spot.clock, spot.from) }],
  });
}

function byHatch({ back, tools }: Question): OpenerChoice {
  const { slotLengthMm, slotWidthMm } = back;
  const opensBy = back.hatchOpens ?? (slotLengthMm === null ? null : 'turned');
  if (opensBy === null)
    return unknown(
      back,
      ['hatchOpens'],
      'Check how the hatch opens. A hatch with a slot is turned, a hatch with a nick at its edge is pried.',
    );
  if (opensBy === 'pried')
    return byBlade(tools, ['blunt blade', 'case knife'], {
      settings: [
        { what: 'First', value: 'mark which way round it sits' },
        { what: 'Blade', value: 'put it in at the nick and twist; never lever over the case' },
      ],
      reasons: ['It has a nick at its edge and no slot. Turning it would break its tongue.'],
    });
  const fits = (blade: Blade): boolean => slotLengthMm === null || blade.widthMm <= slotLengthMm;
  return byBlade(
    { ...tools, blades: tools.blades.filter(fits) },
    ['hatch key', 'blunt blade'],
    {
      settings: [{ what: 'First', value: 'mark the angle it stands at' }],
      reasons: [
        slotLengthMm === null
          ? 'Measure the slot to be sure of the blade.'
          : `Slot ${figure(slotLengthMm)} mm${slotWidthMm === null ? '' : ` × ${figure(slotWidthMm)} mm`}: use the widest blade that goes in.`,
      ],
    },
    slotLengthMm === null ? '' : ` of at most ${figure(slotLengthMm)} mm`,
  );
}

function byPanel({ back, tools }: Question): OpenerChoice {
  const layers = panelLayers(back);
  return layers.length === 0
    ? unknown(
        back,
        ['panelHeldBy'],
        'Record how the panel is held: catches, a sliding lock, adhesive, or several of these.',
      )
    : byLayers(layers, tools);
}

const CHOSEN: Readonly<Record<BackKind, (question: Question) => OpenerChoice>> = {
  'screwed, notched': byWrench,
  'screwed, round holes': byWrench,
  'screwed, patterned': byDie,
  'plate on screws': byDriver,
  'snap-on': byKnife,
  'opens from the front': byKnife,
  'battery hatch': byHatch,
  'latched panel': byPanel,
};

/**
 * What opens this back, from this shop's tools, and how it is set. `not yet known` names the measures still wanted;
 * `with care` opens, but tips; `refer or buy` says what is missing and by how much; `impossible` names measures that
 * contradict each other. Source: bench practice and the geometry of `jawSetting`.
 */
export function chooseOpener(question: Question): OpenerChoice {
  const { back } = question;
  const problems = contradictions(back);
  if (problems.length > 0) {
    return {
      ...NONE,
      verdict: 'impossible',
      opener: 'Measure again',
      reasons: problems.map(({ reason }) => reason),
    };
  }
  return CHOSEN[back.kind](question);
}

/** A panel held by several things: the tool of each, in their order; none of them may be missing. */
function byLayers(layers: readonly PanelHeldBy[], tools: ShopTools): OpenerChoice {
  const each = layers.map((layer) => {
    const { forms, setting, reason } = PANEL_WAYS[layer];
    return { setting, reason, made: forms.length === 0 ? null : byBlade(tools, forms, {}) };
  });
  const lacking = each.find(({ made }) => made !== null && !opens(made))?.made;
  const reasons = each.map(({ reason }) => reason);
  if (lacking) return { ...lacking, reasons: [...lacking.reasons, ...reasons] };
  return {
    ...NONE,
    verdict: 'opens with',
    opener: each.map(({ made }) => made?.opener ?? 'thumbs').join(', then '),
    toolIds: each.flatMap(({ made }) => made?.toolIds ?? []),
    settings: each.map(({ setting }) => setting),
    reasons,
  };
}

function byBlade(
  tools: ShopTools,
  forms: readonly BladeForm[],
  more: Partial<OpenerChoice>,
  size = '',
): OpenerChoice {
  const blade = forms
    .map((form) =>
      tools.blades
        .filter((each) => each.form === form)
        .sort((a, b) => b.widthMm - a.widthMm)
        .at(0),
    )
    .find((each) => each !== undefined);
  return blade
    ? { ...NONE, ...more, verdict: 'opens with', opener: blade.name, toolIds: [blade.id] }
    : {
        ...NONE,
        ...more,
        verdict: 'refer or buy',
        opener: `No ${forms.join(' or ')} of this shop`,
        reasons: [`None is listed on the tools page${size && `,${size}`}.`, ...(more.reasons ?? [])],
        toBuy: `a ${forms[0] ?? ''}${size}`,
      };
}
