import { expect, it } from 'vitest';
import { momentWords } from '#core/model/moment-words.ts';
import { fieldOfMoment, momentOfField } from './site-moment.ts';

it('a moment is typed and read by the clock of the site, in summer and in winter', () => {
  expect(momentOfField('2027-07-01T06:00', 'Europe/London')?.toISOString()).toBe('2027-07-01T05:00:00.000Z');
  expect(momentOfField('2027-01-01T06:00', 'Europe/London')?.toISOString()).toBe('2027-01-01T06:00:00.000Z');
  expect(momentWords('2027-07-01T05:00:00.000Z', 'Europe/London')).toBe('1 Jul 2027, 06:00');
  expect(fieldOfMoment(new Date('2027-07-01T23:30:00Z'), 'Asia/Tokyo')).toBe('2027-07-02T08:30');
  expect(momentOfField('', 'UTC')).toBeNull();
});
