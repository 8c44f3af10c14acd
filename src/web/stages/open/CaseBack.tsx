import { Stack } from '@mui/material';
import { useEffect } from 'react';
import { useController, useFormContext, useWatch } from 'react-hook-form';
import { BACK_KINDS, KNIFE_KINDS } from '../../../core/craft/cases';
import { OPENED_HOW_ASKED, PROTECTIONS_ASKED } from '../../../core/logbook';
import { asAdvised } from '../../../core/advice/opening';
import { factFields } from '../../kit/factFields';
import { optionsOf } from '../../kit/fields';
import { FactCard } from '../../job/FactCard';
import { useJob } from '../../job/JobContext';
import { NativeSelect } from '../../kit/NativeSelect';
import { useOpening } from './useOpening';

const openBack = factFields('open.back');
const OTHER = '';

/** Fields that follow the lamp whether or not they are shown; a form keeps up only those it knows of. */
const FOLLOWING = ['kind', 'toolIds', 'separationMm', 'rearMm', 'spotClock', 'lipClock', 'seenFrom'] as const;

/** What follows the back itself, whatever tool the hand chose. */
const FOLLOW_THE_BACK: ReadonlySet<string> = new Set(['kind', 'lipClock', 'seenFrom']);

function Following({ name }: { readonly name: (typeof FOLLOWING)[number] }) {
  useController({ name });
  return null;
}

/** Which tool was used: as the lamp says until a hand says otherwise. */
function ToolFields({ correcting }: { readonly correcting: boolean }) {
  const { book } = useJob();
  const opening = useOpening();
  const form = useFormContext();
  const toolIds = useWatch({ name: 'toolIds' }) as readonly string[];
  const seenFrom = openBack.useValue('seenFrom') ?? 'behind';
  const openedWith = openBack.useValue('openedWith');
  const advised = asAdvised(opening);
  const advisedKey = JSON.stringify(advised);
  useEffect(() => {
    if (correcting) return;
    const fresh = JSON.parse(advisedKey) as typeof advised;
    const toolByHand = form.getFieldState('toolIds').isDirty || form.getFieldState('openedWith').isDirty;
    for (const [name, value] of Object.entries(fresh)) {
      if (toolByHand && !FOLLOW_THE_BACK.has(name)) continue;
      if (!form.getFieldState(name).isDirty && JSON.stringify(form.getValues(name)) !== JSON.stringify(value))
        form.resetField(name, { defaultValue: value });
    }
  }, [advisedKey, correcting, form]);
  const tools = [...book.wrenches, ...book.openerDies, ...book.drivers, ...book.blades, ...book.balls];
  const first = toolIds[0] ?? OTHER;
  const wrench = book.wrenches.find(({ id }) => id === first);
  return (
    <>
      {FOLLOWING.map((name) => (
        <Following key={name} name={name} />
      ))}
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        {tools.length > 0 && (
          <NativeSelect
            label="Tool of this shop"
            value={first}
            options={[
              { value: OTHER, label: 'not on the list' },
              ...tools.map((tool) => ({
                value: tool.id,
                label: advised.toolIds.includes(tool.id) ? `${tool.name} (advised)` : tool.name,
              })),
            ]}
            onChange={(id) => {
              const tool = tools.find((each) => each.id === id);
              const asTold = advised.toolIds[0] === id && tool !== undefined;
              const set = { shouldDirty: true } as const;
              form.setValue('toolIds', asTold ? advised.toolIds : tool ? [tool.id] : [], set);
              form.setValue('openedWith', asTold ? advised.openedWith : (tool?.name ?? ''), set);
              form.setValue('separationMm', asTold ? advised.separationMm : null);
              form.setValue('rearMm', asTold ? advised.rearMm : null);
            }}
          />
        )}
        <openBack.TextLine name="openedWith" wanted={openedWith === ''} />
      </Stack>
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
        {wrench && (
          <>
            <openBack.MeasureField
              name="separationMm"
              shownAs={wrench.jaws === 3 ? 'Front pair set to' : 'Jaws set to'}
              quantity="lengthMm"
              optional
            />
            {wrench.jaws === 3 && <openBack.MeasureField name="rearMm" quantity="lengthMm" optional />}
          </>
        )}
        {(correcting || KNIFE_KINDS.includes(opening.back.kind)) && (
          <openBack.ClockField name="spotClock" from={seenFrom} />
        )}
      </Stack>
    </>
  );
}

/** How the back came off: the tool used, its setting, and how it went. */
export function CaseBack() {
  const { facts } = useJob().state;
  const opening = useOpening();
  const correcting = facts.back !== null;
  return (
    <FactCard
      kind="open.back"
      title="Case back"
      recorded={facts.back}
      defaults={{
        ...asAdvised(opening),
        protection: null,
        went: null,
      }}
      beside={<openBack.Choice name="went" options={optionsOf(OPENED_HOW_ASKED)} />}
    >
      {(correcting || !opening.kindKnown) && (
        <openBack.ListChoice name="kind" options={optionsOf(BACK_KINDS)} />
      )}
      <ToolFields correcting={correcting} />
      <openBack.Choice name="protection" options={optionsOf(PROTECTIONS_ASKED)} wanted />
    </FactCard>
  );
}
