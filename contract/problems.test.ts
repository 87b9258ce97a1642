import { describe, expect, it } from 'vitest';
import { REFUSAL_CODES } from '#core/model/refusal.ts';
import { PROBLEMS, type ProblemCode, problemSentence } from './problems.ts';

const PARAMS = {
  page: 'p7',
  file: 'f1',
  type: 'application/zip',
  kind: 'picture',
  wanted: 'film',
  pageTitle: 'Visit',
  site: 'tern-sound',
  slug: 'search',
  target: 'p9',
  deepest: 40,
  below: 3,
  limit: '100 kB',
  reason: 'Something stands in the way.',
  origin: 'x',
  role: 'writer',
  seconds: 9,
  method: 'GET',
  path: '/x',
  request: 'r',
  sent: 1,
  revision: 2,
  latest: 9,
  content: 'c',
  text: 'menu/main',
  expected: 'd',
  by: 'Marek',
  name: 'columns.write',
  words: 'renamed',
  goal: 'g1',
  sketch: 's1',
  variant: 'a',
  box: 'b1',
  board: 'b1',
  piece: 'p1',
  audience: 'staff',
  label: 'handbook',
  field: 'Price',
  expects: 'a sum, such as 420',
  menu: 'footer',
  entry: 'p7',
  layout: 'standard',
  fact: 'telephone',
  shared: 'hours',
  form: 'apply',
  email: 'you@school.example',
  address: 'https://old.example/',
  line: 3,
  format: 'x',
  starter: 's1',
  count: 6000,
  at: 'now',
  redirect: 'r1',
  timeZone: 'Quay/Side',
  release: 4,
  place: 'in ‘Courses’',
};

describe('the table of problems', () => {
  it('has words for every refusal of the core', () =>
    expect(Object.keys(PROBLEMS)).toEqual(expect.arrayContaining([...REFUSAL_CODES])));

  it.each(Object.keys(PROBLEMS) as ProblemCode[])('%s: says it in whole sentences, with nothing left out', (code) => {
    const sentence = problemSentence(code, PARAMS);
    expect(sentence).toMatch(/^[A-Z‘].*[.]$/s);
    expect(sentence).not.toMatch(/undefined|null|!/);
    expect(PROBLEMS[code].status).toBeGreaterThanOrEqual(400);
  });
});
