/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import type { ReactNode } from 'react';
import { type DefaultValues, type FieldValues, FormProvider } from 'react-hook-form';
import { z } from 'zod';
import { MeasureField, MoneyField, NumbersField, TextLine } from './fields';
import { Choice, YesNo } from './choiceFields';
import { useCheckedForm, submitHandler } from './form';

const sent: unknown[] = [];
beforeEach(() => void sent.splice(0));

function Form<T extends FieldValues>({
  schema,
  values,
  children,
}: {
  readonly schema: z.ZodType<T, T>;
  readonly values: DefaultValues<T>;
  readonly children: ReactNode;
}) {
  const form = useCheckedForm(schema, { defaultValues: values });
  const send = submitHandler(form, (given) => void sent.push(given));
  return (
    <FormProvider {...form}>
      <form onSubmit={(event) => void send(event)}>
        {children}
        <button type="submit">Record</button>
      </form>
    </FormProvider>
  );
}

const type = (label: string, value: string): boolean =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const record = async (): Promise<void> => {
  await act(async () => {
    fireEvent.click(screen.getByRole('button', { name: 'Record' }));
    await Promise.resolve();
  });
};
const described = (label: string): string => {
  const id = screen.getByLabelText(label).getAttribute('aria-describedby');
  return (id && document.getElementById(id)?.textContent) || '';
};

describe('a figure as a hand or a device types it', () => {
  const schema = z.object({ voltageV: z.number('Rest voltage: a figure.').nullable() });
  const form = (optional = false) =>
    render(
      <Form schema={schema} values={{}}>
        <MeasureField name="voltageV" label="Rest voltage" quantity="voltageV" optional={optional} />
      </Form>,
    );

  it.each([
    ['1.55', 1.55],
    ['1,55 V', 1.55],
    ['1550 mV', 1.55],
    ['+01.550', 1.55],
  ])('%s is kept as %d V', async (text, volts) => {
    form();
    type('Rest voltage', text);
    await record();
    expect(sent).toEqual([{ voltageV: volts }]);
    expect(screen.getByLabelText('Rest voltage')).toHaveProperty('value', text);
  });

  it('says what it understood where that is not what was typed', () => {
    form();
    type('Rest voltage', '1550 mV');
    expect(described('Rest voltage')).toContain('1.55');
    type('Rest voltage', '1.55 V');
    expect(described('Rest voltage')).not.toContain('Understood');
  });

  it.each(['about one', '1.5.5', '3 mm', '1.2 to 1.4'])(
    '%s is not recorded, and it says why',
    async (text) => {
      form(true);
      type('Rest voltage', text);
      await record();
      expect(sent).toEqual([]);
      expect(described('Rest voltage')).toContain('Example: 1.55');
      expect(document.activeElement).toBe(screen.getByLabelText('Rest voltage'));
    },
  );

  it('a blank one is nothing known where that is allowed, and is asked for where not', async () => {
    form(true);
    type('Rest voltage', '1.2');
    type('Rest voltage', ' ');
    await record();
    expect(sent).toEqual([{ voltageV: null }]);
  });

  it('a blank one that must be there is asked for', async () => {
    form();
    await record();
    expect(sent).toEqual([]);
    expect(described('Rest voltage')).toBe('Rest voltage: a figure.');
  });
});

it('money is typed in units and kept in minor ones, to the nearest', async () => {
  render(
    <Form schema={z.object({ priceMinor: z.number().int() })} values={{}}>
      <MoneyField name="priceMinor" label="Price" currency="EUR" />
    </Form>,
  );
  type('Price', '14.29');
  await record();
  expect(sent).toEqual([{ priceMinor: 1429 }]);
});

it('a list of figures is parted by spaces or semicolons; a comma is a decimal', async () => {
  render(
    <Form schema={z.object({ turns: z.array(z.number()) })} values={{ turns: [] }}>
      <NumbersField name="turns" label="Turns" />
    </Form>,
  );
  type('Turns', '1,5  2; 3');
  await record();
  expect(sent).toEqual([{ turns: [1.5, 2, 3] }]);
});

describe('a form of several fields', () => {
  const schema = z.object({
    code: z.string().min(1, 'Code: fill this in.'),
    leaked: z.boolean('Leaked: choose one.'),
    state: z.enum(['clean', 'crust'], 'State: choose one.'),
  });
  const form = () =>
    render(
      <Form schema={schema} values={{ code: '' }}>
        <TextLine name="code" label="Code" />
        <YesNo name="leaked" label="Leaked" yes="Yes" no="No" />
        <Choice
          name="state"
          label="State"
          options={[
            { value: 'clean', label: 'Clean' },
            { value: 'crust', label: 'Crust' },
          ]}
        />
      </Form>,
    );

  it('starts with nothing chosen', () => {
    form();
    for (const radio of screen.getAllByRole('radio')) expect(radio).toHaveProperty('checked', false);
  });

  it('leads the hand to the first field that is wrong, and says at each what is', async () => {
    form();
    fireEvent.click(screen.getByLabelText('Crust'));
    await record();
    expect(sent).toEqual([]);
    expect(document.activeElement).toBe(screen.getByLabelText('Code'));
    expect(described('Code')).toBe('Code: fill this in.');
    expect(screen.getByText('Leaked: choose one.')).toBeTruthy();
    expect(screen.queryByText('State: choose one.')).toBeNull();
    type('Code', '364');
    await record();
    expect(document.activeElement).toBe(screen.getByLabelText('Yes'));
  });

  it('a no is an answer', async () => {
    form();
    type('Code', '364');
    fireEvent.click(screen.getByLabelText('No'));
    fireEvent.click(screen.getByLabelText('Clean'));
    await record();
    expect(sent).toEqual([{ code: '364', leaked: false, state: 'clean' }]);
  });
});
