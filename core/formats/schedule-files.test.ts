import { describe, expect, it } from 'vitest';
import type { Task } from '../derive/schedule.ts';
import { toPageId } from '../model/ids.ts';
import { readCsvTable } from './csv-table.ts';
import { writeScheduleCalendar, writeScheduleCsv } from './schedule-files.ts';

const task = (more: Partial<Task> = {}): Task => ({
  page: toPageId('boats'),
  title: 'Boats, built; here',
  above: ['Home', 'Work "shops"'],
  owner: 'Ines',
  due: '2026-12-31',
  readiness: 'drafting',
  importance: 1,
  words: 250,
  isLate: false,
  blocksOpening: true,
  ...more,
});

describe('the schedule that is taken along', () => {
  it('is a table that reads back', () => {
    const table = readCsvTable(writeScheduleCsv([task()]));
    expect(table).toMatchObject({
      columns: ['due', 'owner', 'title', 'above', 'readiness', 'importance', 'words', 'late'],
      rows: [
        { cells: ['2026-12-31', 'Ines', 'Boats, built; here', 'Home › Work "shops"', 'drafting', '1', '250', 'no'] },
      ],
    });
  });

  it('is a calendar with a whole day for each page that is not ready, in lines of 75 octets', () => {
    const long = task({ page: toPageId('long'), title: 'Ü'.repeat(60) });
    const text = writeScheduleCalendar(
      [task(), long, task({ page: toPageId('done'), readiness: 'ready' })],
      { key: 'pq', name: 'Pellow Quay' },
      '2026-11-25T09:00:00.123Z',
    );
    expect(text).toContain(
      'UID:boats@pq.spur\r\nDTSTAMP:20261125T090000Z\r\nDTSTART;VALUE=DATE:20261231\r\nDTEND;VALUE=DATE:20270101',
    );
    expect(text).toContain('SUMMARY:Boats\\, built\\; here (Ines)');
    expect(text).not.toContain('UID:done');
    const lines = text.split('\r\n');
    expect(Math.max(...lines.map((line) => Buffer.byteLength(line)))).toBeLessThanOrEqual(75);
    expect(text.replaceAll('\r\n ', '')).toContain('Ü'.repeat(60));
  });
});
