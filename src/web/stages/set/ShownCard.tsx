import { Stack, Typography } from '@mui/material';
import { useEffect } from 'react';
import { FormProvider, useForm, useWatch } from 'react-hook-form';
import type { dayOf } from '../../../core/advice/proving';
import { WEEKDAYS } from '../../../core/craft/policy';
import { HALVES, QUICK_SETS, type QuickSet } from '../../../core/craft/setting';
import { Columns } from '../../kit/Columns';
import { fieldsOf, optionsOf, optionsOrNone } from '../../kit/fields';
import { Section } from '../../kit/Section';
import { usePlanner } from './usePlanner';

const LANGUAGES = ['one language', 'two, the first shows', 'two, the second shows'] as const;
const WANTED_LANGUAGES = ['as it is', 'the first', 'the second'] as const;

interface Fields {
  readonly hands: string;
  readonly half: string;
  readonly weekday: string;
  readonly date: number | null;
  readonly language: string;
  readonly wantedLanguage: string;
  readonly quickSet: QuickSet | '';
}
const shown = fieldsOf<Fields>();

const languageOf = (place: number): 0 | 1 | null => (place === 1 ? 0 : place === 2 ? 1 : null);

/** Tells the lamp what is typed. */
function ShownInWords() {
  const { setTyped } = usePlanner();
  const typed = useWatch() as Fields;
  useEffect(() => {
    const weekday = (WEEKDAYS as readonly string[]).indexOf(typed.weekday);
    setTyped({
      hands: typed.hands,
      half: HALVES.find((half) => half === typed.half) ?? null,
      weekday: weekday === -1 ? null : weekday,
      date: typeof typed.date === 'number' && Number.isFinite(typed.date) ? typed.date : null,
      language: languageOf((LANGUAGES as readonly string[]).indexOf(typed.language)),
      wantedLanguage: languageOf((WANTED_LANGUAGES as readonly string[]).indexOf(typed.wantedLanguage)),
      quickSet: typed.quickSet === '' ? null : typed.quickSet,
    });
  }, [typed, setTyped]);
  useEffect(() => () => setTyped(null), [setTyped]);
  return null;
}

/** Which of its languages the owner reads; asked only of a ring with two. */
function LanguageWanted() {
  return shown.useValue('language') === LANGUAGES[0] ? null : (
    <shown.ListChoice name="wantedLanguage" label="Language wanted" options={optionsOf(WANTED_LANGUAGES)} />
  );
}

/** What the watch shows before it is set: nothing of it is recorded, the lamp says the shortest way from there. */
export function ShownCard({
  quickSetInBook,
  day,
}: {
  readonly quickSetInBook: QuickSet | null;
  /** Whether it has a day, as far as anybody knows. */
  readonly day: ReturnType<typeof dayOf>;
}) {
  const form = useForm<Fields>({
    defaultValues: {
      hands: '',
      half: '',
      weekday: '',
      date: null,
      language: LANGUAGES[0],
      wantedLanguage: WANTED_LANGUAGES[0],
      quickSet: quickSetInBook ?? '',
    },
  });
  return (
    <Section title="Display now">
      <FormProvider {...form}>
        <Stack spacing={1.5}>
          <ShownInWords />
          <Columns>
            <shown.TextLine name="hands" label="The hands" mono helper="e.g. 9:42" />
            <shown.ListChoice name="half" label="AM or PM" options={optionsOrNone(HALVES, 'not known')} />
            <shown.MeasureField name="date" label="Date" quantity="figureOnly" helper="1 to 31" />
            {day !== 'has none' && (
              <>
                <shown.ListChoice
                  name="weekday"
                  label="Day"
                  options={optionsOrNone(WEEKDAYS, day === 'has one' ? 'not said yet' : 'it has none')}
                />
                <shown.ListChoice name="language" label="Day ring" options={optionsOf(LANGUAGES)} />
                <LanguageWanted />
              </>
            )}
          </Columns>
          <shown.Choice name="quickSet" label="Quick-set" options={optionsOf(QUICK_SETS)} />
          <Typography variant="body2" color="text.secondary">
            This is not recorded. It is used to work out the setting steps.
          </Typography>
        </Stack>
      </FormProvider>
    </Section>
  );
}
