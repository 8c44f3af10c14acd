import { Box, Typography } from '@mui/material';
import { money } from '../../../core/craft/money';
import type { Diagnosis, PricedRemedy } from '../../../core/craft/health';
import { capital, percent } from '../../../core/craft/judgement';
import { LampAnswer, type Standing } from '../../kit/Lamp';
const STANDING: Readonly<Record<Diagnosis['verdict'], Standing>> = {
  found: 'no',
  'nothing wrong': 'good',
  'wait longer': 'care',
  'cannot tell yet': 'open',
};

function priceWords({ priced, priceMinor }: PricedRemedy, currency: string): string {
  if (priced === null) return 'within the service';
  return priceMinor === null ? 'no price in the list' : money(priceMinor, currency);
}

/** What ails it: the causes with their chances, the test that tells the first two apart, and what to do. */
export function DiagnosisAnswer({
  well,
  diagnosis,
  currency,
}: {
  /** The cell it is about, of several. */
  readonly well: string | null;
  readonly diagnosis: Diagnosis;
  readonly currency: string;
}) {
  const { verdict, causes, ranked, nextTest, remedies, reasons } = diagnosis;
  const [first, ...rest] = remedies;
  return (
    <>
      <LampAnswer
        question={`Read together${well === null ? '' : ` for the cell of ${well}`}: what ails it?`}
        standing={STANDING[verdict]}
        answer={verdict === 'found' ? capital(causes.join(' and ')) : capital(verdict)}
        reasons={reasons}
      >
        {ranked.length > 0 && (
          <Box component="ol" aria-label="Causes by chance" sx={{ listStyle: 'none', p: 0, m: 0, mt: 0.5 }}>
            {ranked.slice(0, 4).map(({ fault, probability, evidence }) => (
              <Typography component="li" key={fault} variant="body2">
                {capital(fault)}, {percent(probability)}
                {evidence.length > 0 &&
                  `: ${evidence
                    .slice(0, 3)
                    .map(({ words, bits }) => `${bits > 0 ? '+' : '−'} ${words}`)
                    .join(', ')}`}
              </Typography>
            ))}
          </Box>
        )}
      </LampAnswer>
      {nextTest && (
        <LampAnswer
          question={`To tell ${nextTest.between[0]} from ${nextTest.between[1]}`}
          standing="open"
          answer={capital(nextTest.words)}
        >
          {nextTest.outcomes.slice(0, 4).map(({ shows, speaksFor }) => (
            <Typography key={shows} variant="body2">
              {capital(shows)}: {speaksFor}.
            </Typography>
          ))}
        </LampAnswer>
      )}
      {first && (
        <LampAnswer
          question="What to do, the gentlest first"
          standing="care"
          answer={capital(first.what)}
          reasons={[`${capital(priceWords(first, currency))}. ${first.risk}`]}
        >
          {rest.map((remedy) => (
            <Typography key={remedy.what} variant="body2" sx={{ mt: 0.5 }}>
              Else {remedy.what}: {priceWords(remedy, currency)}. {remedy.risk}
            </Typography>
          ))}
        </LampAnswer>
      )}
    </>
  );
}
