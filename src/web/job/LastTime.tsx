import { clockWords } from '../../core/craft/cases';
import { localDayInWords } from '../../core/craft/time';
import { LampAnswer } from '../kit/Lamp';
import type { SeenWatch } from './watchHistory';

/** What earlier visits say for the next hand: opener, spot, notes, and leaks. */
export function LastTime({ watch, zone }: { readonly watch: SeenWatch; readonly zone: string }) {
  const { history } = watch;
  const opening = history.lastOpening;
  return (
    <>
      <LampAnswer
        question={opening ? `Opened last, ${localDayInWords(opening.atUtc, zone)}` : 'Opened before'}
        tone={opening ? 'good' : 'open'}
        // That it resisted or bound is no line to overlook.
        folded={opening === null || opening.went === 'freely' || opening.went === 'not noted'}
        answer={
          opening ? `${opening.openedWith}${opening.setting && `, ${opening.setting}`}` : 'Not in this shop'
        }
        reasons={
          opening
            ? [
                `Back: ${opening.kind}${opening.went === 'freely' || opening.went === 'not noted' ? '' : `, it ${opening.went}`}${opening.spotClock === null ? '' : `, the tool went in at ${clockWords(opening.spotClock, opening.seenFrom)}`}.`,
              ]
            : ['The next visit will show how it was opened today.']
        }
      />
      {history.notes.length > 0 && (
        <LampAnswer
          question="Noted for next time"
          tone="care"
          answer={history.notes[0]?.text ?? ''}
          reasons={history.notes.slice(1).map((note) => note.text)}
        />
      )}
      {history.leaks.length > 0 && (
        <LampAnswer
          question="Leaked before"
          tone="no"
          answer={history.leaks[0]?.marking ?? ''}
          reasons={history.leaks.map((leak) => `${localDayInWords(leak.atUtc, zone)}: ${leak.condition}.`)}
        />
      )}
    </>
  );
}
