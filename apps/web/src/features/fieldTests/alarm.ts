import ical, { ICalAlarmType } from 'ical-generator';
import { download } from '../../ui/download.ts';

/** An event with an alarm for the phone's own calendar: the browser sleeps, the calendar does not. */
export function alarmFor(title: string, at: string, site: string): void {
  const calendar = ical({ name: 'Glenfold' });
  const event = calendar.createEvent({
    start: new Date(at),
    end: new Date(Date.parse(at) + 10 * 60_000),
    summary: title,
    location: site,
  });
  event.createAlarm({ type: ICalAlarmType.display, trigger: 0, description: title });
  download('reading.ics', calendar.toString(), 'text/calendar');
}
