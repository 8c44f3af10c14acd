import { capital, type Judged } from '../../craft/judgement';
import { elsewhereWords, type JobState } from '../../logbook';

/** Whether a watch may go back to its owner, as the lamp says it: `isGood` only where this counter stands for it. */
export interface HandbackAnswer {
  readonly answer: string;
  readonly isGood: boolean;
  readonly reasons: readonly string[];
}

/** What another counter signed, this one has not seen: it is told, and is not called good. */
export function readyToHandBack(
  { signature }: Pick<JobState, 'signature'>,
  result: Judged<'ready to sign' | 'not ready'>,
): HandbackAnswer {
  if (signature.state !== 'signed')
    return {
      answer: capital(result.verdict),
      isGood: result.verdict === 'ready to sign',
      reasons: result.reasons,
    };
  const elsewhere = elsewhereWords(signature.entry);
  return elsewhere === null
    ? { answer: 'Signed', isGood: true, reasons: [] }
    : {
        answer: 'Signed elsewhere',
        isGood: false,
        reasons: [`${capital(elsewhere)}: not checked in this shop.`],
      };
}
