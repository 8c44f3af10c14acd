import { pairedWith, putBackRefusal, refusalOf } from '../advice/cell';
import { renewalRefusal } from '../advice/charging';
import { supplyInBook, supplyOf } from '../advice/supply';
import { lightThere } from '../craft/charging';
import { bareCode, type Charge, kitsFor } from '../craft/movements';
import { entryInWords, wellOf } from '../logbook';
import { type Judge, type Judges, refuse } from './admission';
import { lotOf, refuseLot } from './fromLot';

type OfCell =
  | 'cell.found'
  | 'cell.fitted'
  | 'cell.places'
  | 'cell.accumulator'
  | 'cell.put-back'
  | 'cell.charged'
  | 'cell.lit'
  | 'cell.lit-seen'
  | 'cell.out'
  | 'cell.out-settled'
  | 'cell.dropped-settled';

/** What fits, by kind, name and size; never a primary cell where one is charged. */
const ofType: Judge<'cell.fitted'> = (entry, { state, context }) => {
  const well = state.wells.find((each) => each.name === wellOf(entry));
  const refusal = well ? refusalOf(state, well, entry.payload, context.catalogue) : null;
  return refusal && refuse(refusal.reasons, refusal.whatToDo, 'cellCode');
};

/** Two alike in one circuit are of one type and lot; a correction may go first, so that both can be changed. */
const ofPair: Judge<'cell.fitted'> = (entry, { state, context: { catalogue } }) => {
  const well = state.wells.find((each) => each.name === wellOf(entry));
  const other = well && entry.supersedes.length === 0 ? pairedWith(state, well) : null;
  if (other === null || other === undefined) return null;
  const { cellCode, lotId } = entry.payload;
  const alike =
    catalogue.cell(other.payload.cellCode)?.code === catalogue.cell(cellCode)?.code &&
    other.payload.lotId === lotId;
  return alike
    ? null
    : refuse(
        [
          `The other cell of this circuit is ${other.payload.cellCode}${other.payload.lotCode === '' ? '' : ` of lot ${other.payload.lotCode}`}. If the two cells differ, the weaker one is driven backwards and leaks.`,
        ],
        'Take both cells from one lot. If that lot has only one left, correct the first fitting to a lot that has two.',
      );
};

/** Where it comes from: the lot named holds it, is not set aside, and is in date. */
const fromLot: Judge<'cell.fitted'> = (entry, question) => {
  const { cellCode, lotId, ownersOwn } = entry.payload;
  if (lotId === null)
    return ownersOwn
      ? null
      : refuse(
          ['No lot is given, so the date, the supplier and the stock count would be unknown.'],
          'Choose the lot of the cell, or record the cell as the owner’s own.',
        );
  const { catalogue } = question.context;
  const lot = lotOf(question, lotId);
  if (!lot) return refuse(['This lot is not in the stock.'], 'Choose a lot from the list.');
  if (lot.item !== 'cell' || catalogue.cell(lot.code)?.code !== catalogue.cell(cellCode)?.code)
    return refuse(
      [`Lot ${lot.lotCode} holds ${lot.code}, not ${cellCode}.`],
      'Choose the lot the cell was taken from.',
    );
  return refuseLot(lot, entry, question, 'cell');
};

/** Two places are said of a movement the book has none for, and stay as long as something is recorded at them. */
const places: Judge<'cell.places'> = (entry, { state }) => {
  const { calibre, activeEntries } = state;
  if (calibre && calibre.wells.length > 0)
    return refuse(
      [
        `The book lists the cell places of ${calibre.code}: ${calibre.wells.map(({ name }) => name).join(', ')}.`,
      ],
      'If this watch is different, it has another movement. Choose it at stage 3, or correct the book.',
    );
  const named = [entry.payload.first, entry.payload.second];
  const lost = activeEntries.find(
    ({ well, id }) => well !== null && !named.includes(well) && !entry.supersedes.includes(id),
  );
  return lost && lost.well !== null
    ? refuse(
        [`A record exists at “${lost.well}”: ${entryInWords(lost)}.`],
        'Keep this name, or withdraw that record first.',
      )
    : null;
};

/** What sets the accumulator of a sister calibre apart. */
function otherThan(theirs: Charge, ours: Charge): string {
  return (
    [
      ...(theirs.nominalV === ours.nominalV ? [] : [`${theirs.nominalV} V and not ${ours.nominalV} V`]),
      ...(theirs.heightMm === ours.heightMm
        ? []
        : [`${theirs.heightMm} mm high and not ${ours.heightMm} mm`]),
      ...(theirs.diameterMm === ours.diameterMm
        ? []
        : [`${theirs.diameterMm} mm across and not ${ours.diameterMm} mm`]),
    ].join(', ') || 'its tabs are its own'
  );
}

/** A kit is for one calibre, from a lot that holds it and is in date. */
const accumulator: Judge<'cell.accumulator'> = (entry, question) => {
  const { payload } = entry;
  const { kitCode, lotId } = payload;
  const { calibre } = question.state;
  if (calibre && supplyInBook(calibre) === 'primary')
    return refuse(
      [`${calibre.code} runs on a primary cell and cannot charge an accumulator.`],
      'Fit the primary cell named in the book.',
    );
  const kits = calibre?.charge ? kitsFor(calibre.charge) : [];
  if (calibre?.charge && !kits.some((kit) => bareCode(kit.kitCode) === bareCode(kitCode))) {
    const sister = question.context.catalogue.calibres.find(
      ({ charge }) => charge && kitsFor(charge).some((kit) => bareCode(kit.kitCode) === bareCode(kitCode)),
    );
    const differs = sister?.charge
      ? [`${kitCode} is for ${sister.code}: ${otherThan(sister.charge, calibre.charge)}.`]
      : [];
    return refuse(
      [
        `The kit for ${calibre.code} is ${kits.map((kit) => kit.kitCode).join(' or ')}, not ${kitCode}.`,
        ...differs,
      ],
      'Each kit is for one calibre. Never use another kit of the same size.',
    );
  }
  const [primary] = question.state.facts.cellsFitted.values();
  if (primary)
    return refuse(
      [`A ${primary.payload.cellCode} is recorded as fitted.`],
      'A watch never takes both an accumulator and a primary cell. If that record is wrong, withdraw it first.',
    );
  const supply = supplyOf(question.state, question.context.catalogue);
  if (supply.againstRechargeable.length > 0)
    return refuse(
      [
        `This watch runs on a primary cell: ${supply.againstRechargeable.join('; ')}. An accumulator has another voltage and runs down within months.`,
      ],
      'Fit a primary cell. If it does charge an accumulator, record that with the reason under “Power source”.',
    );
  const tooSoon = renewalRefusal(question.state, payload);
  if (tooSoon) return refuse(tooSoon.reasons, tooSoon.whatToDo, tooSoon.path);
  if (lotId === null) return null;
  const lot = lotOf(question, lotId);
  if (lot?.item !== 'kit' || bareCode(lot.code) !== bareCode(kitCode))
    return refuse(['This lot does not contain this kit.'], 'Choose the lot the kit was taken from.');
  return refuseLot(lot, entry, question, 'kit');
};

const CHARGED_BY = { light: 'light', rotor: 'its rotor' } as const;

/** What was charged charges, and by what its movement is charged by; a charger feeds either. */
const charged: Judge<'cell.charged'> = ({ payload: { by } }, { state, context }) => {
  const charge = state.calibre?.charge ?? null;
  if (charge !== null && by !== 'charger' && by !== charge.by)
    return refuse(
      [`${state.calibre?.code ?? ''} is charged by ${CHARGED_BY[charge.by]}, not by ${CHARGED_BY[by]}.`],
      'Record how it was charged. If the movement is another one, correct the movement.',
    );
  const supply = supplyOf(state, context.catalogue);
  return supply.verdict === 'primary'
    ? refuse(
        [
          `This watch runs on a primary cell: ${supply.againstRechargeable.join('; ')}. A primary cell that is charged leaks or bursts.`,
        ],
        'If it does charge an accumulator, record that with the reason under “Power source”. Take out a primary cell that was charged.',
      )
    : null;
};

/** Under a light goes what charges there, and no nearer than its case bears. */
const underLight: Judge<'cell.lit'> = (entry, { state, context }) => {
  const { calibre } = state;
  if (calibre && supplyInBook(calibre) !== null && calibre.charge?.by !== 'light')
    return refuse(
      [
        calibre.charge === null
          ? `${calibre.code} runs on a primary cell. Light does not charge it.`
          : `${calibre.code} is charged by its rotor, not by light.`,
      ],
      'If the movement is another one, correct the movement.',
    );
  const place = context.catalogue.lightPlaces.find(({ id }) => id === entry.payload.placeId);
  if (!place) return refuse(['That light place is not among the tools.'], 'Choose it from the list.');
  const { distanceMm, roomC } = entry.payload;
  const there = lightThere(place, distanceMm, roomC);
  return there.verdict === 'too hot' || there.verdict === 'refused'
    ? refuse(
        there.reasons,
        'Lay the watch farther from the light, or under another light.',
        there.caseC === null || distanceMm === null ? 'roomC' : 'distanceMm',
      )
    : null;
};

const seenUnderLight: Judge<'cell.lit-seen'> = ({ occurredAt }, { state }) => {
  const lies = state.facts.underLight;
  if (lies === null)
    return refuse(
      ['The watch is not recorded under a light of this shop.'],
      'First record where it lies, in stage 5.',
    );
  return occurredAt < lies.put.occurredAt
    ? refuse(['The check is dated before the watch was placed there.'], 'Record the check when you make it.')
    : null;
};

/** The cell that was in the watch goes in again only where nothing speaks against it. */
const putBack: Judge<'cell.put-back'> = (entry, { state, context }) => {
  const well = state.wells.find((each) => each.name === wellOf(entry));
  const refusal = well ? putBackRefusal(state, well, context.catalogue) : null;
  return refusal && refuse(refusal.reasons, refusal.whatToDo);
};

const outOfBlister: Judge<'cell.out'> = ({ payload: { lotId, cellCode } }, question) => {
  if (lotId === null) return null;
  const lot = lotOf(question, lotId);
  const { catalogue } = question.context;
  const holds =
    lot?.item === 'kit'
      ? bareCode(lot.code) === bareCode(cellCode)
      : lot?.item === 'cell' && catalogue.cell(lot.code)?.code === catalogue.cell(cellCode)?.code;
  return holds
    ? null
    : refuse(['This lot does not contain this cell.'], 'Choose the lot the cell was taken from.');
};

/** A cell that was seen has a condition: what stands empty there would read as if nothing had leaked. */
const found: Judge<'cell.found'> = ({ payload: { marking, condition } }) =>
  marking !== null && condition === null
    ? refuse(
        ['The condition of the cell found is missing.'],
        'Choose what you see on the cell, for example “clean”.',
        'condition',
      )
    : null;

export const cellJudges: Judges<OfCell> = {
  'cell.found': found,
  'cell.places': places,
  'cell.fitted': (entry, question) =>
    ofType(entry, question) ?? ofPair(entry, question) ?? fromLot(entry, question),
  'cell.accumulator': accumulator,
  'cell.put-back': putBack,
  'cell.charged': charged,
  'cell.lit': underLight,
  'cell.lit-seen': seenUnderLight,
  'cell.out': outOfBlister,
  'cell.out-settled': ({ payload }, { state }) =>
    state.facts.cellsOut.has(state.standsFor(payload.outEntryId))
      ? null
      : refuse(
          ['This cell is not recorded as out of its blister in this job.'],
          'Choose one that is shown as loose.',
        ),
  'cell.dropped-settled': ({ payload }, { state }) =>
    state.facts.dropped.has(state.standsFor(payload.droppedEntryId))
      ? null
      : refuse(['This cell is not recorded as dropped in this job.'], 'Choose one that is shown as dropped.'),
};
