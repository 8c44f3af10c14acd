import { testExcess } from '../advice/handback';
import { ringContradictions } from '../craft/gaskets';
import { overTravel } from '../craft/opening';
import { type Judges, refuse } from './admission';

type AtTheBench =
  | 'arrive.parts-arrived'
  | 'open.back'
  | 'open.part-settled'
  | 'open.photo-mark'
  | 'seal.gasket'
  | 'set.run-ended'
  | 'test.made';

/** What is recorded between arrival and hand-back, the cell apart: each names something the job holds. */
export const benchJudges: Judges<AtTheBench> = {
  'arrive.parts-arrived': (_, { state }) =>
    state.facts.partsRequest === null
      ? refuse(['This job waits for no parts.'], 'Record the request first.')
      : null,
  'open.back': ({ payload }, { context }) => {
    const wrench = context.catalogue.wrenches.find(({ id }) => payload.toolIds.includes(id));
    const over = wrench ? overTravel(wrench, payload) : null;
    return over && refuse([over.reason], 'Correct the setting, or choose the tool that was used.');
  },
  'open.part-settled': ({ payload }, { state }) =>
    state.facts.parts.has(state.standsFor(payload.partEntryId))
      ? null
      : refuse(['That part is not on the tray of this job.'], 'Choose a part from the tray.'),
  'open.photo-mark': ({ payload }, { known }) =>
    known.some(({ attachments }) => attachments.includes(payload.photo))
      ? null
      : refuse(['That photo is not among the files of this job.'], 'Add the photo first.'),
  'seal.gasket': ({ payload }, { lots, state }) => {
    const { lotId } = payload;
    const rim = state.facts.seals?.payload.rim;
    const against = [
      ...ringContradictions(payload),
      ...(rim === 0 && payload.state !== 'renewed' && !payload.findings.includes('missing')
        ? [`No ring was counted at the rim, and it was ${payload.state}: one of the two.`]
        : []),
    ];
    if (against.length > 0) return refuse(against, 'Say again what was found and what was done.');
    return lotId === null || lots().find(({ id }) => id === lotId)?.item === 'gasket'
      ? null
      : refuse(['The lot named holds no gaskets of this stock.'], 'Choose a gasket lot from the list.');
  },
  'test.made': ({ payload }, { state, context }) => {
    const { retestOf, excessReason } = payload;
    if (retestOf !== null && !state.facts.tests.some(({ id }) => id === state.standsFor(retestOf)))
      return refuse(['The test it tries anew is not one of this job.'], 'Choose it from the tests made.');
    const excess = testExcess(payload, state, context.policy);
    return excess.length > 0 && excessReason === ''
      ? refuse(excess, 'Test at less, or say why it was tested beyond that.')
      : null;
  },
  'set.run-ended': (_, { state }) =>
    state.facts.runBegan === null
      ? refuse(['No proving run was begun.'], 'Record what the hands show at its start.')
      : null,
};
