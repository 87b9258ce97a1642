import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { readIndentedList } from '#core/formats/indented-list.ts';
import { toPageId } from '#core/model/ids.ts';
import { siteOf } from '../testing/workbench-for-keys.ts';
import { keepClip, keptClip, makeClip } from './clip.ts';

const SITE = siteOf(['home', 'courses', '  long', '  short', '    oars', 'visit']);
const ids = (...pages: string[]) => pages.map(toPageId);

describe('a clip', () => {
  const kept = new Map<string, string>();
  beforeEach(() => {
    kept.clear();
    vi.stubGlobal('localStorage', {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => kept.set(key, value),
      removeItem: (key: string) => kept.delete(key),
    });
  });
  afterEach(() => vi.unstubAllGlobals());

  it('names the branches alone that stand below no other one, and holds all below as a list', () => {
    const clip = makeClip(SITE, ids('courses', 'oars', 'visit'), 'copy');
    expect(clip.pages).toEqual(['courses', 'visit']);
    const list = readIndentedList(clip.text);
    expect(list.ok && list.entries.map(({ title, depth }) => `${depth} ${title}`)).toEqual([
      '0 courses',
      '1 long',
      '1 short',
      '2 oars',
      '0 visit',
    ]);
  });

  it('is there for every tab until it is let go of', () => {
    const clip = makeClip(SITE, ids('long'), 'cut');
    keepClip(clip);
    expect(keptClip()).toEqual(clip);
    keepClip(null);
    expect(keptClip()).toBeNull();
  });

  it.each(['', '{', '{"site":"x"}', '[]', 'null'])('is none where %j was kept by something else', (text) => {
    kept.set('spur.clip', text);
    expect(keptClip()).toBeNull();
  });

  it('is none where the browser keeps nothing', () => {
    vi.stubGlobal('localStorage', undefined);
    expect(() => keepClip(makeClip(SITE, ids('long'), 'copy'))).not.toThrow();
    expect(keptClip()).toBeNull();
  });
});
