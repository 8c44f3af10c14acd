import { amount, money } from '../../../core/craft/money';
import { capital } from '../../../core/craft/judgement';
import { Loading } from '../../kit/Loading';
import { DataTable } from '../../kit/DataTable';
import type { ToolsServed } from '../../../contract';
import type { Book } from '../../../core/craft/book';
import { type Policy, SERVICES } from '../../../core/craft/policy';
import { paidBack, paybackOfJob } from '../../../core/craft/tools';
import { localDayInWords } from '../../../core/craft/time';
import { readQuantity } from '../../../core/craft/units';
import { useBook } from '../../api/book';
import { type SeenShop, useShop, useToolsServed } from '../../api/resources';
import { LampAnswer, Working } from '../../kit/Lamp';
import { MONO } from '../../kit/theme';
import { NativeSelect } from '../../kit/NativeSelect';
import { StageLayout } from '../../kit/StageLayout';
import { NoSuchPage } from '../NoSuchPage';
import { ImportTable } from './ImportTable';
import { RecordPage } from './RecordPage';
import { TOOL_VIEWS, type ToolView } from './records';
import { Button, Paper, Stack, TableCell, TableRow, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { Link, useParams } from 'react-router';

/** What the usual job earns over referring it: the dearest of what most watches come for would flatter a tool. */
function gainMinor(policy: Policy): number {
  const { priceMinor } = policy.services['cell only'];
  return paybackOfJob(policy, { toolCostMinor: 0, priceMinor, jobsPerMonth: 0 }).gainMinor;
}

function paidWords(costMinor: number, jobs: number, policy: Policy): string {
  const { verdict, restMinor } = paidBack({ costMinor, jobs, gainMinor: gainMinor(policy) });
  if (verdict === 'never') return 'never, at this price';
  const rest = money(restMinor, policy.currency);
  return verdict === 'paid' ? `● ${rest} earned` : `○ ${rest} to go`;
}

function ToolList({
  view,
  book,
  shop,
  served,
}: {
  readonly view: ToolView;
  readonly book: Book;
  readonly shop: SeenShop;
  readonly served: ToolsServed['served'];
}) {
  const [tables, setTables] = useState(false);
  const all = view.listed(book);
  const { policy } = shop;
  return (
    <Paper component="section" aria-label={view.title} sx={{ p: 2 }}>
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center', flexWrap: 'wrap', rowGap: 0.5 }}>
        <Typography variant="h3" component="h2" sx={{ flexGrow: 1 }}>
          {view.title}
        </Typography>
        <Button component={Link} to={`${view.base}/${view.segment}/new`} variant="outlined">
          New {view.one}
        </Button>
        <Button
          onClick={() => setTables(!tables)}
          aria-expanded={tables}
          aria-label={`CSV export and import: ${view.title}`}
        >
          CSV export and import
        </Button>
      </Stack>
      {tables && view.tables.map((table) => <ImportTable key={table} table={table} />)}
      {all.length === 0 ? (
        <Typography color="text.secondary">
          None entered yet. Add the first with New {view.one}, or import a table under CSV.
        </Typography>
      ) : (
        <DataTable
          label={`${view.title} of this shop`}
          heads={[capital(view.one), 'Cost', 'Jobs', 'Paid for itself']}
        >
          {all.map(({ id, name, says, costMinor }) => {
            const use = served.find((each) => each.toolId === id);
            return (
              <TableRow key={id}>
                <TableCell>
                  <Link to={`${view.base}/${view.segment}/${encodeURIComponent(id)}`}>{name}</Link>
                  <Typography variant="body2" color="text.secondary">
                    {view.heads
                      .map((head, index) => `${head.toLowerCase()} ${says[index] ?? ''}`)
                      .join(' · ')}
                  </Typography>
                </TableCell>
                <TableCell>{amount(costMinor)}</TableCell>
                <TableCell>
                  {use ? `${use.jobs}, last ${localDayInWords(use.lastAtUtc, shop.shop.zone)}` : 'none yet'}
                </TableCell>
                <TableCell sx={{ whiteSpace: 'nowrap' }}>
                  {paidWords(costMinor, use?.jobs ?? 0, policy)}
                </TableCell>
              </TableRow>
            );
          })}
        </DataTable>
      )}
    </Paper>
  );
}

/** Would it pay to buy a tool: its cost, the service it serves, and how often it would be asked for. */
function WouldItPay({ shop, served }: { readonly shop: SeenShop; readonly served: ToolsServed | undefined }) {
  const { policy } = shop;
  const [cost, setCost] = useState('');
  const [service, setService] = useState<(typeof SERVICES)[number]>('cell only');
  const [rate, setRate] = useState<string | null>(null);
  const counted = ((served?.wantedInYear ?? 0) / 12).toFixed(2);
  const read = { cost: readQuantity(cost, 'figureOnly'), rate: readQuantity(rate ?? counted, 'figureOnly') };
  const answer =
    read.cost.verdict === 'read' &&
    read.rate.verdict === 'read' &&
    read.cost.value >= 0 &&
    read.rate.value >= 0
      ? paybackOfJob(policy, {
          toolCostMinor: Math.round(read.cost.value * 100),
          priceMinor: policy.services[service].priceMinor,
          jobsPerMonth: read.rate.value,
        })
      : null;
  const figureField = { htmlInput: { inputMode: 'decimal', style: { fontFamily: MONO } } } as const;
  return (
    <>
      <TextField
        label={`The tool costs, ${policy.currency}`}
        value={cost}
        onChange={(event) => setCost(event.target.value)}
        error={cost !== '' && read.cost.verdict !== 'read'}
        helperText="e.g. 48.00"
        slotProps={figureField}
      />
      <NativeSelect
        label="For the service"
        value={service}
        options={SERVICES.map((each) => ({
          value: each,
          label: `${each}, ${money(policy.services[each].priceMinor, policy.currency)}`,
        }))}
        onChange={(value) => setService(value as typeof service)}
      />
      <TextField
        label="Jobs per month that need it"
        value={rate ?? counted}
        onChange={(event) => setRate(event.target.value)}
        error={read.rate.verdict !== 'read'}
        helperText={`${served?.wantedInYear ?? 0} referred in the last 12 months because no opener fitted`}
        slotProps={figureField}
      />
      <LampAnswer
        question="Payback"
        tone={answer === null ? 'open' : answer.verdict === 'pays' ? 'good' : 'no'}
        answer={
          answer === null
            ? 'Enter the price of the tool'
            : answer.verdict === 'pays'
              ? `After ${answer.jobs} jobs`
              : capital(answer.verdict)
        }
        reasons={answer?.reasons ?? []}
      />
      <Working lines={answer?.working ?? []} />
    </>
  );
}

/** The shop's tools: what each can do, how many jobs it opened, whether it has paid for itself. */
export default function ToolsPage() {
  const { segment, recordId } = useParams();
  const { data: shop } = useShop();
  const { book } = useBook(shop?.catalogueRevision);
  const { data: served } = useToolsServed();
  if (!book || !shop) return <Loading what="the tools" />;
  if (segment !== undefined && recordId !== undefined) {
    const view = TOOL_VIEWS.find((each) => each.segment === segment);
    return view ? (
      <Stack spacing={2}>
        <Typography variant="h1">
          <Link to="/tools">Tools</Link>: {view.title.toLowerCase()}
        </Typography>
        <RecordPage key={`${segment}-${recordId}`} view={view} book={book} id={recordId} shop={shop} />
      </Stack>
    ) : (
      <NoSuchPage what="kind of tool" />
    );
  }
  const { policy } = shop;
  return (
    <StageLayout
      mat={
        <>
          <Typography variant="h1">Tools</Typography>
          {TOOL_VIEWS.map((view) => (
            <ToolList key={view.kind} view={view} book={book} shop={shop} served={served?.served ?? []} />
          ))}
        </>
      }
      lamp={
        <>
          <LampAnswer
            question="Earnings of a job compared with referral"
            tone={gainMinor(policy) > 0 ? 'good' : 'no'}
            answer={money(gainMinor(policy), policy.currency)}
            reasons={[
              `Cell only ${money(policy.services['cell only'].priceMinor, policy.currency)}, less ${money(policy.ownCostMinor, policy.currency)} own cost and ${money(policy.referralMarginMinor, policy.currency)} kept when it is referred (from the policy page).`,
            ]}
          />
          <WouldItPay shop={shop} served={served} />
        </>
      }
    />
  );
}
