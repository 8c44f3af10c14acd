import { Checkbox, FormControlLabel, Stack, Typography } from '@mui/material';
import { useState } from 'react';
import { capital } from '../../../core/craft/judgement';
import { recipesAtSetting } from '../../../core/craft/setting';
import { Section } from '../../kit/Section';
import { useJob } from '../../job/JobContext';

/** What the book knows of setting and proving this calibre, step by step; the ticks are the hand's own and not recorded. */
export function Recipes() {
  const { calibre } = useJob().state;
  const [done, setDone] = useState<readonly string[]>([]);
  const recipes = recipesAtSetting(calibre?.recipes ?? []);
  if (calibre === null || recipes.length === 0) return null;
  return (
    <Section title={`${calibre.code} by the book`}>
      <Stack direction={{ xs: 'column', sm: 'row' }} spacing={2} sx={{ flexWrap: 'wrap' }}>
        {recipes.map(({ what, steps }) => (
          <Stack
            key={what}
            component="fieldset"
            sx={{ border: 0, p: 0, m: 0, minWidth: 0, flex: '1 1 260px' }}
          >
            <Typography component="legend" sx={{ fontWeight: 700, p: 0 }}>
              {capital(what)}
            </Typography>
            {steps.map((step, index) => {
              const key = `${what}|${index}`;
              return (
                <FormControlLabel
                  key={key}
                  sx={{ alignItems: 'flex-start', '& .MuiCheckbox-root': { py: 0.25 } }}
                  label={`${index + 1}. ${step}`}
                  control={
                    <Checkbox
                      size="small"
                      checked={done.includes(key)}
                      onChange={(_, on) => setDone(on ? [...done, key] : done.filter((each) => each !== key))}
                    />
                  }
                />
              );
            })}
          </Stack>
        ))}
      </Stack>
      <Typography variant="body2" color="text.secondary">
        The ticks only keep your place. Record above what works.
      </Typography>
    </Section>
  );
}
