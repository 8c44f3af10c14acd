import ical, { ICalAlarmType } from 'ical-generator';
import { remindFrom } from '../../core/advice/dayplan';
import { daysBetween } from '../../core/craft/time';
import type { Dossier } from './dossier';

const DAY_S = 86_400;

/** The next visit as a calendar file for the customer (RFC 5545), or null while none can be worked out. */
export function nextVisitCalendar({ resource, state, context, statement }: Dossier): string | null {
  if (statement.nextVisitOn === null) return null;
  const watch = [state.facts.watch?.payload.maker, state.facts.watch?.payload.reference]
    .filter(Boolean)
    .join(' ');
  const calendar = ical({
    name: `${context.shop.name}: next visit`,
    prodId: { company: 'Wax Lantern', product: 'counter' },
  });
  const reminded = remindFrom(statement.nextVisitOn);
  const event = calendar.createEvent({
    id: `next-visit-${resource.job.id}`,
    start: new Date(`${statement.nextVisitOn}T00:00:00.000Z`),
    allDay: true,
    stamp: new Date(context.nowUtc),
    summary: `New cell for ${watch || 'your watch'}`,
    description: statement.nextVisit,
    location: [context.shop.name, context.shop.place].filter(Boolean).join(', '),
  });
  event.createAlarm({
    type: ICalAlarmType.display,
    trigger: Math.round(daysBetween(reminded, statement.nextVisitOn)) * DAY_S,
    description: `A month to the next visit: ${statement.nextVisit}`,
  });
  return calendar.toString();
}
