import { describe, expect, it } from 'vitest';
import { toPageId } from '#core/model/ids.ts';
import { siteOf } from '../testing/workbench-for-keys.ts';
import { placeWords } from './place-words.ts';

const SITE = siteOf(['Home', 'Courses', '  Long', '  Short']);
const words = (parent: string | null, after: string | null, isInside = false) =>
  placeWords(SITE, {
    view: 'sheet',
    gap: 0,
    isInside,
    place: {
      parent: parent === null ? null : toPageId(parent),
      after: after === null ? null : toPageId(after),
      depth: 0,
    },
  });

describe('where something would land, in words', () => {
  it.each([
    [null, null, false, 'First at the top level'],
    [null, 'Home', false, 'At the top level, after ‘Home’'],
    ['Courses', null, false, 'Inside ‘Courses’, first'],
    ['Courses', 'Long', false, 'Inside ‘Courses’, after ‘Long’'],
    ['Courses', 'Short', true, 'Inside ‘Courses’, last'],
  ] as const)('in %s after %s', (parent, after, isInside, expected) =>
    expect(words(parent, after, isInside)).toBe(expected),
  );
});
