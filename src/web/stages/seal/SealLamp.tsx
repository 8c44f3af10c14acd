import { Link } from 'react-router';
import type { RingChoice } from '../../../core/advice/seal';
import { notSeenRunning } from '../../../core/advice/proving';
import { backs, closingSchool } from '../../../core/craft/cases';
import { type FitOfRing, isAsAdvised, type RingAdvice, type WornRing } from '../../../core/craft/gaskets';
import { capital, figure, percent } from '../../../core/craft/judgement';
import { partInWords } from '../../../core/craft/parts';
import { wayTaken } from '../../../core/craft/policy';
import { openParts, outcomesFor, pairBack, activeRing, wayBack } from '../../../core/logbook';
import { DieStackFigure } from '../../figures/DieStackFigure';
import { GrooveFigure } from '../../figures/GrooveFigure';
import { ScrewRound } from '../../figures/ScrewRound';
import { useJob } from '../../job/JobContext';
import { useSettle } from '../../job/Tray';
import { Answers } from '../../kit/Answers';
import { Caution, LampAnswer, type LampTone } from '../../kit/Lamp';
import { useSealing } from './useSealing';

const STANDING_OF_FIT: Readonly<Record<FitOfRing['verdict'], LampTone>> = {
  fits: 'good',
  borderline: 'care',
  'cannot say': 'open',
  no: 'no',
};
const STANDING_OF_ADVICE: Readonly<Record<RingAdvice['verdict'], LampTone>> = {
  renew: 'care',
  'look at it': 'open',
  reuse: 'good',
};
const STANDING_OF_WORN: Readonly<Record<WornRing['verdict'], LampTone>> = {
  springy: 'good',
  renew: 'care',
  'no seal left': 'no',
  'never squeezed': 'no',
  swollen: 'no',
  'cannot say': 'open',
  'measures disagree': 'open',
};

/** What the measures of the old ring show, in words that say it once: what to do stands under *Gasket*. */
const SHOWN_BY_WORN: Readonly<Record<WornRing['verdict'], string>> = {
  springy: 'Still springy',
  renew: 'Little spring left',
  'no seal left': 'No longer seals',
  'never squeezed': 'Never squeezed',
  swollen: 'Swollen',
  'cannot say': 'Cannot be calculated',
  'measures disagree': 'The measures disagree',
};

/** What became of the part that goes back first, said where it is asked. */
function FirstBack() {
  const { state, technician } = useJob();
  const settle = useSettle();
  const [first] = wayBack(state.facts);
  if (first === undefined) return null;
  return (
    <Answers
      of={`${capital(partInWords(first.off.payload))} is`}
      disabled={technician === null}
      choices={outcomesFor(first).map((outcome) => ({
        label: `1. ${capital(outcome)}`,
        onPick: () => settle(first, outcome),
      }))}
    />
  );
}

/** The sections an old ring can have had, and how large it was when new. */
function wornWords({ worn, sections }: RingChoice): string[] {
  if (worn === null) return [];
  const [from, to] = worn.insideLikelyMm;
  return [
    ...worn.reasons,
    ...(worn.sectionMm > 0
      ? [`Its inside diameter when new was ${figure(from, 1)} to ${figure(to, 1)} mm.`]
      : []),
    sections.length > 0
      ? `Possible sections from this shop, likeliest first: ${sections.map((each) => each.toFixed(2)).join(', ')} mm.`
      : 'No section in this shop’s book or stock is near it.',
  ];
}

/** The old ring as measured, and which it can have been. */
function OldRing() {
  const { ring, oldCanBe } = useSealing();
  const { oldRing, groove } = useJob().state.facts;
  const worn = ring?.worn ?? null;
  const canBe = oldCanBe && (
    <>
      <LampAnswer
        question="Possible sizes of the old ring"
        tone={oldCanBe.verdict === 'likeliest' ? 'good' : 'open'}
        answer={
          oldCanBe.rings.length > 0
            ? oldCanBe.rings
                .map(({ ring: { code }, probability }) => `${code} (${percent(probability)})`)
                .join(', ')
            : capital(oldCanBe.verdict)
        }
        reasons={oldCanBe.reasons}
        working={oldCanBe.working}
        folded
      />
    </>
  );
  if (oldRing !== null && groove === null)
    return (
      <>
        <LampAnswer
          question="The old ring"
          tone="open"
          answer="Not yet known"
          reasons={['Measure its groove as well. The remaining spring depends on the depth of the groove.']}
        />
        {canBe}
      </>
    );
  if (ring === null || worn === null) return canBe;
  return (
    <>
      {canBe}
      <LampAnswer
        question="The old ring, measured"
        folded
        tone={STANDING_OF_WORN[worn.verdict]}
        answer={SHOWN_BY_WORN[worn.verdict]}
        reasons={wornWords(ring)}
        working={worn.working}
      />
    </>
  );
}

/** The best few rings for the groove, and what to order where none of them fits. */
function WhichRing() {
  const { ring } = useSealing();
  const settled = activeRing(useJob().state.facts) !== null;
  if (ring === null) return null;
  const [first] = ring.best;
  const { wanted } = ring;
  const sizes = ring.best.map(
    ({ ring: each, fit }) =>
      `${each.code}: ${fit.verdict}, squeeze ${figure(fit.squeeze.percent, 1)} %, stretch ${figure(fit.stretch.percent, 1)} %, fill ${figure(fit.fill.percent, 1)} %; ${each.left > 0 ? `${each.left} in stock` : 'none in stock'}${each.caseCodes.length > 0 ? `, also ${each.caseCodes.slice(0, 3).join(', ')}` : ''}.`,
  );
  const order = wanted
    ? `To order: ${figure(wanted.insideMm, 1)} × ${wanted.sectionMm.toFixed(2)}; good from ${figure(wanted.insideFromMm, 1)} to ${figure(wanted.insideToMm, 1)} mm inside, ${wanted.sectionFromMm.toFixed(2)} to ${wanted.sectionToMm.toFixed(2)} mm thick.`
    : 'No round ring fits this groove. Measure again, or order by part number.';
  const fits = first !== undefined && first.fit.verdict === 'fits' && first.ring.left > 0;
  return (
    <>
      <LampAnswer
        question="Ring for this groove"
        tone={first ? STANDING_OF_FIT[first.fit.verdict] : 'no'}
        answer={first ? `${first.ring.code} ${first.fit.verdict}` : 'No ring in this shop fits'}
        reasons={[...(fits ? (first.fit.reasons ?? []) : [order, ...(first?.fit.reasons ?? [])]), ...sizes]}
        shown={fits ? 1 : 2}
        working={first?.fit.working ?? []}
        folded={settled && fits}
      >
        {first && (
          <GrooveFigure
            groove={ring.groove}
            code={first.ring.code}
            fit={first.fit}
            sectionMm={first.ring.size.sectionMm}
          />
        )}
      </LampAnswer>
    </>
  );
}

/** The dies that press it, drawn as they lie. */
function Dies() {
  const { dies, measures } = useSealing();
  const { facts } = useJob().state;
  if (dies === null || facts.closed !== null) return null;
  // Nobody who closes by the thumbs is asked for measures.
  if (dies.verdict === 'not yet known' && facts.press === null) return null;
  return (
    <>
      <LampAnswer
        question="Press dies"
        tone={dies.verdict === 'press' ? 'good' : dies.verdict === 'not yet known' ? 'open' : 'no'}
        answer={
          dies.verdict === 'press' && dies.crystalSide && dies.backSide
            ? `${capital(dies.crystalSide.die.name)} and ${dies.backSide.die.name}`
            : capital(dies.verdict)
        }
        reasons={dies.reasons}
        shown={dies.verdict === 'press' ? 1 : Infinity}
        working={dies.working}
        folded={activeRing(facts) === null && dies.verdict === 'press'}
      >
        <DieStackFigure dies={dies} measures={measures} />
      </LampAnswer>
    </>
  );
}

/** How this shop closes such a back, once anybody said how it opens. */
function HowItCloses() {
  const { schools } = useJob().context.policy;
  const { kind, kindKnown } = useSealing();
  const settled = activeRing(useJob().state.facts) !== null;
  const school = closingSchool(kind);
  const way = school && wayTaken(schools, school);
  return kindKnown ? (
    <LampAnswer
      question={way ? 'Closing sequence (shop policy)' : 'Closing'}
      folded={!settled}
      tone="good"
      answer={capital(way ? way.way : (backs[kind].closes[0] ?? ''))}
      reasons={[
        ...(way ? [way.reason] : [`Mind: ${backs[kind].minds}.`]),
        `Grease by ${schools.grease === 'either' ? 'pad, or fingers and wipe' : schools.grease}.`,
        'Change finger cots before you touch the cell or the movement.',
      ]}
    />
  ) : (
    <LampAnswer
      question="Closing"
      tone="open"
      answer="Not yet known"
      reasons={['The kind of back is not recorded yet.']}
    />
  );
}

/** What must be in its place, or seen running, before the watch is shut. */
function BeforeClosing() {
  const { state, asks, resource } = useJob();
  const { facts } = state;
  const open = openParts(facts);
  const unseen = notSeenRunning(state);
  const cellMissing = state.progress.some(({ missing }) =>
    missing.some(({ requirement }) => requirement === 'cell.fitted'),
  );
  const isClosed = facts.closed !== null;
  return (
    <>
      {cellMissing && (
        <Caution grave>
          {isClosed
            ? 'The watch is closed, but a cell is missing from the record. Record it in stage 5. If the watch has none, open it again.'
            : 'A cell is not fitted yet. Do not close the watch.'}
        </Caution>
      )}
      {!cellMissing && asks('set.runs') && unseen !== null && (
        <Caution>
          {unseen} <Link to={`/jobs/${resource.job.id}/set`}>Watch it run now</Link>.
        </Caution>
      )}
      {open.length > 0 && (
        <>
          <Caution>
            {isClosed
              ? 'The watch is closed, but parts are still listed on the tray. Record what happened to each part. If a part was left out of the watch, open the watch again.'
              : 'Before you close the watch, record where each part on the tray went. A part left inside rattles; a part left out is missed only later.'}
          </Caution>
          <LampAnswer
            question="Parts to put back, in order"
            tone="care"
            answer={`${open.length} on the tray`}
            reasons={wayBack(facts).map(({ off }, index) => `${index + 1}. ${partInWords(off.payload)}`)}
          >
            <FirstBack />
          </LampAnswer>
        </>
      )}
    </>
  );
}

/** What is worked out for this stage. */
export function SealLamp() {
  const { state } = useJob();
  const { facts } = state;
  const { advice, fitted: ringIn, kind, screwCount } = useSealing();
  const done = activeRing(facts)?.payload ?? null;
  const followed = done === null || isAsAdvised(done.state, advice);
  const pairing = pairBack(facts);
  const counted = facts.seals?.payload;
  return (
    <>
      <LampAnswer
        question="Gasket"
        tone={done === null ? STANDING_OF_ADVICE[advice.verdict] : followed ? 'good' : 'care'}
        answer={capital(advice.verdict)}
        reasons={[...(followed ? [] : [`Decided differently: ${done.reason}`]), ...advice.reasons]}
        shown={advice.verdict === 'look at it' ? 2 : 1}
        working={advice.working}
        folded={done !== null && followed}
      />
      <WhichRing />
      {facts.closed === null && <Caution>Use silicone grease only: mineral grease swells rubber.</Caution>}
      <BeforeClosing />
      <OldRing />
      {ringIn !== null && (
        <LampAnswer
          question="Ring fitted"
          folded={ringIn.verdict === 'fits'}
          tone={STANDING_OF_FIT[ringIn.verdict]}
          answer={capital(ringIn.verdict)}
          reasons={ringIn.reasons}
        />
      )}
      {facts.closed === null && <HowItCloses />}
      <Dies />
      {kind === 'plate on screws' && facts.closed === null && (
        <LampAnswer
          question="The screws, round by round"
          folded={done === null}
          tone="good"
          answer={`${screwCount}, crosswise`}
          reasons={[
            'First start all screws without tightening. Then tighten crosswise, so that the plate goes down evenly.',
          ]}
        >
          <ScrewRound count={screwCount} />
        </LampAnswer>
      )}
      {counted && (
        <LampAnswer
          question="Seals counted at opening"
          folded
          tone="care"
          answer={`${counted.rim + counted.innerCover + counted.hatch} to account for`}
          reasons={[
            `${counted.rim} at the rim, ${counted.innerCover} of an inner cover, ${counted.hatch} of a hatch.`,
          ]}
        />
      )}
      {pairing.verdict !== 'not asked' && (
        <LampAnswer
          question="Back and case match"
          folded={pairing.verdict === 'paired'}
          tone={pairing.verdict === 'paired' ? 'good' : pairing.verdict === 'not yet known' ? 'care' : 'no'}
          answer={capital(pairing.verdict)}
          reasons={pairing.reasons}
        />
      )}
      {facts.closed?.payload.seamEven === false && (
        <Caution grave>
          The seam is not even. The ring is pinched or the back is not fully down. Open it again.
        </Caution>
      )}
    </>
  );
}
