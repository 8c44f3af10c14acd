import { Box, Stack, Typography } from '@mui/material';
import { Link } from 'react-router';
import type { Book } from '../../../core/craft/book';
import {
  asMarked,
  type CellReading,
  type CellType,
  crossReference,
  lookAlikesHere,
  mayBeFitted,
  readCellMarking,
  saidTogether,
  type WitnessVerdict,
} from '../../../core/craft/cells';
import { setOf, witnessesOf } from '../../../core/advice/cell';
import { fittedAdviceOf } from '../../../core/advice/life';
import { capital, figure, type WorkingLine } from '../../../core/craft/judgement';
import type { WellState } from '../../../core/logbook';
import type { WhatToFit } from '../../../core/craft/stock';
import { dayInWords } from '../../../core/craft/time';
import { Caution, LampAnswer, type LampTone } from '../../kit/Lamp';
import { CellFigure } from '../../figures/CellFigure';
import { type OpenJob, useJob } from '../../job/JobContext';
import { orderAt, useChosenLot, useFit } from './useFit';
import { WellMeasuredCard } from './WellMeasured';
import { wellTitle } from './wells';

function foundReading({ draft, book }: OpenJob, well: WellState): CellReading | null {
  const typed = draft.wells[well.name]?.found;
  if (typed === undefined) return well.foundReading;
  return typed.trim() === '' ? null : readCellMarking(typed, book.cellTable);
}

/** The arithmetic behind what is said of the old cell. */
function foundWorking(job: OpenJob, well: WellState): readonly WorkingLine[] {
  const reading = foundReading(job, well);
  if (reading === null) return [];
  const cross = reading.verdict === 'read' && well.wanted ? crossReference(well.wanted, reading.cell) : null;
  return [...reading.working, ...(cross?.working ?? [])];
}

/** Names on a label the reading is less than sure of. */
function unsureWords({ names }: CellReading): string[] {
  const unsure = names.filter(({ sure }) => sure !== 'table');
  return names.length > 1 && unsure.length > 0
    ? [`Not sure of ${unsure.map(({ text, sure }) => `“${text}” (${sure})`).join(', ')}.`]
    : [];
}

/** The cell the book has for a well, by the name the book has it under. */
function movementsCell({ wanted }: WellState, book: Book): CellType | null {
  const cell = wanted && book.cell(wanted.code);
  return cell && { ...cell, names: [wanted.code] };
}

/** What the old cell is; a line where the evidence as a whole says more of it already. */
function FoundAnswer({ well, explained }: { readonly well: WellState; readonly explained: boolean }) {
  const job = useJob();
  const { book } = job;
  const reading = foundReading(job, well);
  if (reading === null) {
    return (
      <LampAnswer
        question={capital(`${wellTitle(well)}the old cell`)}
        folded={well.found !== null}
        tone={well.found ? 'good' : 'open'}
        answer={well.found ? 'None found' : 'Not yet read'}
        reasons={[
          well.found
            ? 'There is no old cell to compare with. Only the book says what to fit.'
            : 'Read its marking to check whether the last cell was the right one.',
        ]}
      />
    );
  }
  if (reading.verdict !== 'read') {
    return (
      <LampAnswer
        question="The old cell"
        tone="no"
        answer={
          reading.verdict === 'ambiguous'
            ? reading.alternatives.map(({ code }) => code).join(' or ')
            : capital(reading.verdict)
        }
        reasons={[...reading.reasons, ...unsureWords(reading)]}
      />
    );
  }
  const cell = asMarked(reading, book.cellTable) ?? reading.cell;
  const cross = well.wanted ? crossReference(well.wanted, cell) : null;
  const { warn } = lookAlikesHere(cell, { movement: movementsCell(well, book) }, book.cellTable);
  return (
    <>
      <LampAnswer
        question="The old cell"
        tone={cross === null ? 'open' : mayBeFitted(cross.verdict) ? 'good' : 'no'}
        folded={explained || cross === null || mayBeFitted(cross.verdict)}
        working={foundWorking(job, well)}
        answer={cross === null ? cell.code : `${cell.code}: ${cross.verdict}`}
        reasons={[...reading.reasons.map(capital), ...unsureWords(reading), ...(cross?.reasons ?? [])]}
      />
      {warn.map((each) => (
        <Caution key={each.name}>
          {each.own} is easily confused with {each.name}, {each.because}: {each.how}. The last repairer may
          have confused them.
        </Caution>
      ))}
    </>
  );
}

const WITNESS_STANDING: Readonly<Record<WitnessVerdict['verdict'], LampTone>> = {
  'no witness': 'open',
  'one witness': 'open',
  'they agree': 'good',
  'one differs': 'no',
  'cannot tell': 'care',
};

/** Who says what belongs there, and who is probably wrong; quiet while one alone speaks or all agree. */
function WitnessAnswer({ well, said }: { readonly well: WellState; readonly said: WitnessVerdict }) {
  if (said.verdict === 'no witness' || said.verdict === 'one witness') return null;
  const erred = said.said.filter(({ agrees }) => !agrees).map(({ kind }) => kind);
  return (
    <LampAnswer
      question={capital(`${wellTitle(well)}evidence for the cell`)}
      tone={WITNESS_STANDING[said.verdict]}
      answer={
        said.verdict === 'one differs'
          ? `${said.code === null ? '' : `${said.code}: `}the ${erred.join(' and the ')} ${erred.length === 1 ? 'is' : 'are'} probably wrong`
          : said.verdict === 'they agree'
            ? `All evidence points to ${said.code}`
            : 'The evidence conflicts'
      }
      reasons={said.verdict === 'they agree' ? [] : [...said.reasons, ...said.howToTell]}
      shown={said.asksForWell ? 1 : Infinity}
      working={said.working}
      folded={said.verdict === 'they agree'}
    >
      {said.asksForWell && (
        <Box sx={{ mt: 1 }}>
          <WellMeasuredCard well={well} />
        </Box>
      )}
    </LampAnswer>
  );
}

/** Whether the cell found may stay, for a reseal or a good cell. */
function StayAnswer({ well }: { readonly well: WellState }) {
  const { state, book, today, asks } = useJob();
  if (well.fitted !== null || (asks('cell.fitted') && well.putBack === null)) return null;
  const advice = fittedAdviceOf(state, well, book, today);
  if (advice === null) return null;
  return (
    <LampAnswer
      question="Cell in the watch"
      tone={advice.verdict === 'change now' ? 'no' : advice.verdict === 'leave' ? 'good' : 'care'}
      answer={
        advice.recallOn === null
          ? 'Change now'
          : `${advice.verdict === 'leave' ? 'Leave it in. Recall' : 'Recall'} by ${dayInWords(advice.recallOn)}`
      }
      reasons={advice.reasons}
    />
  );
}

/** What else may be fitted, and what to order, where the stock runs out. */
function StockAnswer({ fit }: { readonly fit: WhatToFit }) {
  const { order, substitutes } = fit;
  if (order === null) return null;
  return (
    <LampAnswer
      question="To order"
      tone="care"
      answer={`${order.code}${order.supplier === null ? '' : `, ${order.supplier}`}`}
      reasons={[
        order.reason,
        ...(substitutes.length > 0
          ? [
              `Substitutes: ${substitutes.map(({ cell, cross }) => `${cell.code} (${cross.verdict})`).join(', ')}.`,
            ]
          : []),
      ]}
    >
      <Link to={orderAt(order)}>Write order</Link>
    </LampAnswer>
  );
}

/** Look-alikes of the lot that is about to be taken. */
function LotLooksLike({ well, fit }: { readonly well: WellState; readonly fit: WhatToFit }) {
  const { book } = useJob();
  const movement = movementsCell(well, book);
  const found = well.foundCell;
  const [chosen] = useChosenLot(well, fit);
  // By the name on its box.
  const lot = chosen === null ? null : { ...chosen.cell, names: [chosen.lot.code] };
  if (lot === null || well.fitted !== null) return null;
  const { warn, list } = lookAlikesHere(lot, { movement, found }, book.cellTable);
  // Beside the old cell it is warned of this pair already.
  const saidOfFound = chosen?.cell.code === well.wanted?.code;
  return (
    <>
      {warn
        .filter(
          ({ because }) =>
            because !== 'the movement’s cell' && !(saidOfFound && because === 'what was found in the watch'),
        )
        .map((each) => (
          <Caution key={each.name}>
            {each.own} is easily confused with {each.name}, {each.because}: {each.how}.
          </Caution>
        ))}
      {list.length > 0 && (
        <LampAnswer
          question={`Look-alikes of ${lot.code}`}
          tone="open"
          folded
          answer={[...new Set(list.map(({ name }) => name))].join(', ')}
        />
      )}
    </>
  );
}

/** Whether the old cell is spoken of where all the evidence is. */
const isExplained = ({ verdict }: WitnessVerdict): boolean =>
  verdict === 'one differs' || verdict === 'cannot tell';

/** What the lamp says of one well. */
export function WellLamp({ well }: { readonly well: WellState }) {
  const job = useJob();
  const { state, book } = job;
  const fit = useFit(well);
  const { wanted } = well;
  const said = witnessesOf(state, well, book);
  if (!wanted || fit === null) {
    const together = saidTogether(said);
    const goBy = well.measured
      ? 'go by the cell found and the well'
      : 'go by the cell found, and measure the well';
    return (
      <>
        <LampAnswer
          question={capital(`${wellTitle(well)}what to fit`)}
          tone={together === null ? 'open' : 'care'}
          answer={together ?? 'Not yet known'}
          reasons={[
            state.calibre
              ? `The book does not list the cell for ${state.calibre.code} yet: ${goBy}.`
              : state.facts.movement
                ? `The movement is not in the book: ${goBy}.`
                : 'Which movement is it? Stage 3 answers that.',
          ]}
        />
        <WitnessAnswer well={well} said={said} />
        <FoundAnswer well={well} explained={isExplained(said)} />
        <StayAnswer well={well} />
        {fit !== null && !well.fitted && <StockAnswer fit={fit} />}
      </>
    );
  }
  const { best } = fit;
  const together = setOf(state, well, book).length;
  return (
    <>
      <LampAnswer
        question={capital(`${wellTitle(well)}${well.fitted ? 'cell fitted' : 'cell to fit'}`)}
        tone={well.fitted || well.putBack || best ? 'good' : 'no'}
        answer={
          well.putBack
            ? 'The same cell again'
            : (well.fitted?.payload.cellCode ?? best?.lot.code ?? `${wanted.code}: none in stock`)
        }
        shown={best === null || best.cross.verdict === 'equal' ? 2 : Infinity}
        folded={well.fitted !== null || well.putBack !== null}
        working={[...(best?.cross.working ?? []), ...fit.working]}
        reasons={
          well.fitted
            ? [`The movement takes ${wanted.code}.`]
            : best
              ? [
                  ...(together > 1 ? [`All ${together} from this lot. They are a set.`] : []),
                  ...fit.bestBecause,
                  ...best.reasons,
                ]
              : [`Order ${wanted.code}, ${figure(wanted.diameterMm)} × ${figure(wanted.heightMm)} mm.`]
        }
      >
        <Stack direction="row" spacing={1} sx={{ alignItems: 'center', mt: 0.5 }}>
          <CellFigure code={wanted.code} diameterMm={wanted.diameterMm} heightMm={wanted.heightMm} />
          <Typography variant="body2">
            {figure(wanted.diameterMm)} × {figure(wanted.heightMm)} mm, {figure(wanted.nominalV)} V,{' '}
            {well.well?.faceUp} up
          </Typography>
        </Stack>
      </LampAnswer>
      <WitnessAnswer well={well} said={said} />
      <FoundAnswer well={well} explained={isExplained(said)} />
      <StayAnswer well={well} />
      <LotLooksLike well={well} fit={fit} />
      {!well.fitted && <StockAnswer fit={fit} />}
    </>
  );
}
