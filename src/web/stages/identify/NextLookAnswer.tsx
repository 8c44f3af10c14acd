import { Typography } from '@mui/material';
import { useEffect, useRef } from 'react';
import { LOOKS, type NextLook } from '../../../core/craft/identify';
import { capital, figure, percent } from '../../../core/craft/judgement';
import { Answers } from '../../kit/Answers';
import { focusElement } from '../../kit/keys/required';
import { LampAnswer } from '../../kit/Lamp';
import { TypedLookField, useLook } from './Evidence';
import { useAskedLook } from './useIdentification';

/** The further look that settles most for its effort: answered here, with what each outcome would mean. */
export function NextLookAnswer({ next }: { readonly next: NextLook }) {
  const asked = useAskedLook();
  const { best, then, doubtBits } = next;
  if (asked === null) return null;
  // While its answer is typed another look would be the best already.
  const worth = best?.look === asked ? best : null;
  return (
    <LampAnswer
      question="Next look"
      tone="open"
      answer={worth?.of === undefined ? capital(LOOKS[asked].words) : `The revision of ${worth.of}`}
      reasons={worth === null ? [] : next.reasons}
    >
      <Asked key={asked} look={asked} worth={worth} />
      {worth !== null && then.length > 0 && (
        <Typography variant="body2" color="text.secondary" sx={{ mt: 0.5 }}>
          Otherwise{' '}
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

function Asked({
  look,
  worth,
}: {
  readonly look: NonNullable<NextLook['best']>['look'];
  readonly worth: NextLook['best'];
}) {
  const { give, mayRecord } = useLook(look);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => focusElement(box.current?.querySelector<HTMLElement>('[data-wanted="true"]') ?? null), []);
  const outcomes = worth?.outcomes ?? [];
  const means = ({ probability, then, thenProbability }: (typeof outcomes)[number]): string =>
    `${percent(probability)}: then ${then}, ${percent(thenProbability)}`;
  const isTyped = LOOKS[look].as !== 'pick' && look !== 'engraving';
  return (
    <div ref={box}>
      {isTyped && <TypedLookField look={look} />}
      {outcomes
        .filter(({ value }) => value === null)
        .map((outcome) => (
          <Typography key={outcome.shows} variant="body2">
            {capital(outcome.shows)} ({means(outcome)}).
          </Typography>
        ))}
      <Answers
        of={capital(LOOKS[look].words)}
        asked={!isTyped && look !== 'engraving'}
        disabled={!mayRecord}
        choices={[
          ...outcomes.flatMap((outcome) =>
            outcome.value === null
              ? []
              : [
                  {
                    label: capital(outcome.shows),
                    means: means(outcome),
                    onPick: () => give(outcome.value),
                  },
                ],
          ),
          { label: 'Cannot see it', onPick: () => give(null) },
        ]}
      />
    </div>
  );
}
