import { amount } from '../../../core/craft/money';
import { useState } from 'react';
import { TextField } from '@mui/material';
import { Link } from 'react-router';
import type { BackKind } from '../../../core/craft/cases';
import { paybackOfJob, toolsFor, usualCostMinor } from '../../../core/craft/tools';
import { readQuantity } from '../../../core/craft/units';
import { useToolsServed } from '../../api/resources';
import { LampAnswer, Working } from '../../kit/Lamp';
import { MONO } from '../../kit/theme';
import { useJob } from '../../job/JobContext';

interface Props {
  readonly toBuy: string;
  readonly kind: BackKind;
  /** Nothing of this shop opens it. */
  readonly refer: boolean;
}

/** What is missing to open this watch, and whether it would pay to buy it. */
export function PaybackAnswer({ toBuy, kind, refer }: Props) {
  const { book, context, state, resource } = useJob();
  const { policy } = context;
  const { data: served } = useToolsServed();
  const usualMinor = usualCostMinor(toolsFor(kind, book));
  const [typed, setTyped] = useState(usualMinor === null ? '' : amount(usualMinor));
  const cost = readQuantity(typed, 'figureOnly');
  const service = state.facts.service?.payload;
  const answer =
    cost.verdict === 'read' && service
      ? paybackOfJob(policy, {
          toolCostMinor: Math.round(cost.value * 100),
          priceMinor: service.priceMinor,
          jobsPerMonth: (served?.wantedInYear ?? 0) / 12,
        })
      : null;
  return (
    <LampAnswer
      question={refer ? 'Refer it, or buy' : 'A better tool'}
      tone={refer ? 'no' : 'care'}
      answer={toBuy}
      reasons={[
        ...(answer?.reasons ?? ['Enter the price of the tool to see whether it pays.']),
        `Referred in the last 12 months because no opener fitted: ${served?.wantedInYear ?? 0}.`,
      ]}
    >
      <TextField
        label={`The tool costs, ${policy.currency}`}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        error={typed !== '' && cost.verdict !== 'read'}
        helperText={
          usualMinor === null ? 'as the supplier asks' : 'default: average price of such tools in this shop'
        }
        size="small"
        sx={{ mt: 1 }}
        slotProps={{ htmlInput: { inputMode: 'decimal', style: { fontFamily: MONO } } }}
      />
      {refer && (
        <p>
          <Link to={`/jobs/${resource.job.id}/arrive`}>Refer it at stage 1</Link>, with its reason.
        </p>
      )}
      <Working lines={answer?.working ?? []} />
    </LampAnswer>
  );
}
