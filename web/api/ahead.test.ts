import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { siteAfter } from '#core/testing/random-site.ts';
import { sendTree } from '#contract/sent-tree.ts';
import { askAhead, treeOf } from './ahead.ts';

const asked: string[] = [];
let isSignedIn: boolean;
beforeEach(() => {
  asked.length = 0;
  isSignedIn = true;
  const problem = { type: '/problems/x', title: 'x', status: 401, detail: 'Sign in.', code: 'not-signed-in' };
  vi.stubGlobal('fetch', (path: string) => {
    asked.push(path);
    return Promise.resolve(
      isSignedIn ? Response.json(sendTree(siteAfter([]), asked.length)) : Response.json(problem, { status: 401 }),
    );
  });
});
afterEach(() => vi.unstubAllGlobals());

describe('a tree that was asked for ahead', () => {
  it('is given once, and then asked for anew', async () => {
    askAhead('quay');
    expect((await treeOf('quay')).revision).toBe(1);
    expect(asked).toHaveLength(1);
    expect((await treeOf('quay')).revision).toBe(2);
  });

  it('is not given for another site, nor after another one was opened', async () => {
    askAhead('quay');
    await treeOf('sound');
    expect(asked).toEqual(['/api/sites/quay/tree', '/api/sites/sound/tree']);
    expect((await treeOf('quay')).revision).toBe(3);
  });

  it('is asked for again where nobody was signed in yet; who is not told of a fault has it when they ask', async () => {
    isSignedIn = false;
    askAhead('quay');
    await new Promise((resolve) => setTimeout(resolve, 0));
    isSignedIn = true;
    expect((await treeOf('quay')).revision).toBe(2);
    isSignedIn = false;
    askAhead('quay');
    await expect(treeOf('quay')).rejects.toThrow('Sign in.');
  });
});
