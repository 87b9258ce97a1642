import type { Task } from '../derive/schedule.ts';
import { writeCsvTable } from './csv-table.ts';

/** The schedule as a table: one row a page. */
export const writeScheduleCsv = (tasks: readonly Task[]): string =>
  writeCsvTable(
    ['due', 'owner', 'title', 'above', 'readiness', 'importance', 'words', 'late'],
    tasks.map((task) => [
      task.due,
      task.owner,
      task.title,
      task.above.join(' › '),
      task.readiness,
      task.importance === null ? '' : String(task.importance),
      String(task.words),
      task.isLate ? 'yes' : 'no',
    ]),
  );

const DAY_MS = 86_400_000;
/** RFC 5545, 3.1: a line has at most 75 octets; what is longer goes on after a line break and a space. */
const MAX_LINE_LENGTH = 75;

/**
 * The schedule as a calendar (iCalendar, RFC 5545): an event of a whole day for each page that is not ready. `stamp` is
 * the moment at which it is written; the id of an event is that of its page, so that a calendar that takes it again
 * changes it in place.
 */
export function writeScheduleCalendar(
  tasks: readonly Task[],
  site: { key: string; name: string },
  stamp: string,
): string {
  const lines = [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//Spur//Content schedule//EN',
    `X-WR-CALNAME:${escaped(site.name)}`,
    ...tasks
      .filter(({ readiness }) => readiness !== 'ready')
      .flatMap((task) => [
        'BEGIN:VEVENT',
        `UID:${task.page}@${site.key}.spur`,
        `DTSTAMP:${stamp.replace(/[-:]|\.\d+/g, '')}`,
        `DTSTART;VALUE=DATE:${compact(task.due)}`,
        `DTEND;VALUE=DATE:${compact(new Date(Date.parse(`${task.due}T00:00:00Z`) + DAY_MS).toISOString().slice(0, 10))}`,
        `SUMMARY:${escaped(`${task.title}${task.owner === '' ? '' : ` (${task.owner})`}`)}`,
        `DESCRIPTION:${escaped(`${[...task.above, task.title].join(' › ')}\n${task.words} words`)}`,
        'TRANSP:TRANSPARENT',
        'END:VEVENT',
      ]),
    'END:VCALENDAR',
  ];
  return lines.map(folded).join('\r\n') + '\r\n';
}

const compact = (day: string): string => day.replaceAll('-', '');
const escaped = (text: string): string => text.replace(/[\\;,]/g, '\\$&').replace(/\r\n|\n|\r/g, '\\n');

function folded(line: string): string {
  const parts: string[] = [];
  let part = '';
  let size = 0;
  for (const letter of line) {
    const octets = sizeOf(letter);
    if (size + octets > MAX_LINE_LENGTH - (parts.length > 0 ? 1 : 0)) {
      parts.push(part);
      part = '';
      size = 0;
    }
    part += letter;
    size += octets;
  }
  return [...parts, part].join('\r\n ');
}

/** How many octets a letter has in UTF-8. */
function sizeOf(letter: string): number {
  const code = letter.codePointAt(0)!;
  return code < 0x80 ? 1 : code < 0x800 ? 2 : code < 0x10000 ? 3 : 4;
}
