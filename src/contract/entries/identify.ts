import { z } from 'zod';
import { SUPPLIES } from '../../core/craft/cells';
import { LOOK_NAMES, LOOKS, lookSpec } from '../../core/craft/identify';
import type { IdentifyPayloads } from '../../core/logbook';
import { number, oneOf, optionalText, text } from '../fields';
import { addsFields, changes, type KindDefinitions, kind } from './define';
const LONGEST_TEXT = 120;

export const identifyKinds: KindDefinitions<IdentifyPayloads> = {
  'identify.engraving': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        text: text({ words: 'Engraving', max: LONGEST_TEXT, example: 'OR 41?2 C2140-3' }),
      }),
  }),
  'identify.evidence': kind({
    version: 2,
    // A movement ring is no holder: the cell lies free beneath it.
    upcasts: [
      changes('a movement ring holds no cell', (payload) =>
        'value' in payload && payload.value === 'ring round the movement'
          ? { ...payload, value: 'lying free in its well' }
          : payload,
      ),
    ],
    schema: () =>
      z
        .strictObject({
          look: oneOf('Look', LOOK_NAMES),
          value: z.union([z.string().trim().min(1).max(LONGEST_TEXT), z.number()]).nullable(),
          withinMm: number({ words: 'Half a step', min: 0, max: 1, unit: 'mm', example: 0.28 }),
        })
        .superRefine(({ look, value }, context) => {
          const wrong = (message: string): void =>
            void context.addIssue({ code: 'custom', path: ['value'], message });
          if (value === null) return;
          const spec = lookSpec(look);
          const words = LOOKS[look].words;
          if (spec.as === 'mm') {
            if (typeof value !== 'number' || value < spec.min || value > spec.max)
              wrong(
                `The ${words}: plausible is ${spec.min} to ${spec.max} mm; ${value} is probably a typing or caliper error.`,
              );
            return;
          }
          if (typeof value !== 'string') return wrong(`The ${words}: as it is seen, not a figure.`);
          if (spec.as === 'pick' && spec.values.length > 0 && !spec.values.includes(value))
            wrong(`The ${words}: one of ${spec.values.join('; ')}.`);
        }),
  }),
  'identify.movement': kind({
    version: 2,
    schema: () =>
      z.strictObject({
        calibreId: text({ words: 'Calibre', max: 60, example: 'orrelin-41-2' }).nullable(),
        revision: text({ words: 'Revision', max: 20, example: 'B' }).nullable(),
        code: text({ words: 'Movement', max: 60, example: 'OR 41.2' }),
        by: oneOf('Identified by', ['engraving', 'evidence', 'hand']),
        note: optionalText({ words: 'Note', max: 300, example: 'second letter worn' }),
      }),
    upcasts: [addsFields('revision of the calibre', { revision: null })],
  }),
  'identify.supply': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        runsFrom: oneOf('Power source', SUPPLIES),
        reason: text({
          words: 'Evidence',
          max: 200,
          example: 'a solar cell under the dial, charged and steps',
        }),
      }),
  }),
};
