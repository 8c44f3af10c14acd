import { z } from 'zod';
import type { SetPayloads } from '../../core/logbook';
import { FUNCTION_KINDS } from '../../core/craft/movements';
import { FURTHER_PROOFS, OUTSIDE, PROOF_RESULTS, RUN_PURPOSES } from '../../core/craft/setting';
import { called, handsReading, number, oneOf, optionalText, yesNo } from '../fields';
import { addsFields, type KindDefinitions, kind } from './define';

/** What each thing tried did, by its name. */
const tried = <const T extends readonly string[]>(what: T) =>
  called(
    'Functions tried',
    z.partialRecord(z.enum(what), oneOf('Result', PROOF_RESULTS), {
      error: 'Functions tried: an object, e.g. {}.',
    }),
  );
const handedBackSo = optionalText({
  words: 'Reason for handing it back with a fault',
  max: 200,
  example: 'the owner knows, and wants no repair',
});

/** A reason to hand it back so is one only where something fails. */
const onlyWhereItFails = {
  check: ({
    proved,
    handedBackSo: why,
  }: {
    readonly proved: object;
    readonly handedBackSo: string;
  }): boolean => why === '' || Object.values(proved).includes('does not work'),
  message: 'Nothing is said not to work: say which, or leave the reason out.',
};

const toSee = oneOf('To see', RUN_PURPOSES);

/** How it keeps time goes by the hands alone; that it runs is seen. */
const wantsReading = {
  message: 'The hands show: hours and minutes, e.g. 09:42, or 09:42:15 with a seconds hand.',
  path: ['shows'],
};

/** What an earlier program kept knows of proving runs alone. */
const toSeeTime = addsFields('what a run is to show', { toSee: 'how it keeps time' });
const noReason = addsFields('a reason for handing back with a fault', { handedBackSo: '' });

export const setKinds: KindDefinitions<SetPayloads> = {
  'set.runs': kind({
    version: 1,
    schema: () =>
      z.strictObject({
        runs: yesNo('Result'),
        watchedSeconds: number({ words: 'Watched for', min: 1, max: 1_000_000, unit: 's', example: 60 }),
      }),
  }),
  'set.time': kind({ version: 1, schema: () => z.strictObject({ set: yesNo('Set to the signal') }) }),
  'set.crown-down': kind({ version: 1, schema: () => z.strictObject({ down: yesNo('Crown screwed down') }) }),
  'set.outside': kind({
    version: 2,
    schema: () =>
      z
        .strictObject({ proved: tried(OUTSIDE), handedBackSo })
        .refine(onlyWhereItFails.check, { message: onlyWhereItFails.message, path: ['handedBackSo'] }),
    upcasts: [noReason],
  }),
  'set.run-began': kind({
    version: 2,
    schema: () =>
      z
        .strictObject({ toSee, shows: handsReading })
        .refine((run) => run.toSee === 'that it runs' || run.shows !== '', wantsReading),
    upcasts: [toSeeTime],
  }),
  'set.run-ended': kind({
    version: 2,
    schema: () =>
      z
        .strictObject({ toSee, shows: handsReading, stillRuns: yesNo('Still running') })
        .refine((run) => run.toSee === 'that it runs' || run.shows !== '' || !run.stillRuns, wantsReading),
    upcasts: [toSeeTime],
  }),
  'set.functions': kind({
    version: 2,
    schema: () =>
      z
        .strictObject({
          proved: tried([...FUNCTION_KINDS, ...FURTHER_PROOFS]),
          handedBackSo,
        })
        .refine(onlyWhereItFails.check, { message: onlyWhereItFails.message, path: ['handedBackSo'] }),
    upcasts: [noReason],
  }),
};
