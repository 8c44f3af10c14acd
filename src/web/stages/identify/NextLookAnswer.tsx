import { Typography } from '@mui/material';
import type { NextLook } from '../../../core/craft/identify';
import { capital, figure, percent } from '../../../core/craft/judgement';
import { LampAnswer } from '../../kit/Lamp';

/** The further look that settles most for its effort, and what each outcome would mean. */
export function NextLookAnswer({ next }: { readonly next: NextLook }) {
  const { best, then, doubtBits } = next;
  if (best === null) return null;
  return (
    <LampAnswer
      question="Look next at"
      standing="open"
      answer={best.of === undefined ? capital(best.words) : `The revision of ${best.of}`}
      reasons={next.reasons}
    >
      {best.outcomes.map((outcome) => (
        <Typography key={outcome.shows} variant="body2">
          {capital(best.of === undefined ? `${best.words} ${outcome.shows}` : outcome.shows)} (
          {percent(outcome.probability)}): then {outcome.then}, {percent(outcome.thenProbability)}.
        </Typography>
      ))}
      {then.length > 0 && (
        <Typography variant="body2" color="text.secondary" sx={{ mt: 0.5 }}>
          Else{' '}
          {then
            .map(
              ({ words, bits, effort }) => `${words} (${figure((100 * bits) / doubtBits, 0)} %, ${effort})`,
            )
            .join(', ')}
          .
        </Typography>
      )}
    </LampAnswer>
  );
}
