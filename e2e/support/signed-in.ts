import { afterAll, beforeEach } from 'vitest';
import { type Browser, openBrowser } from './browser.ts';
import { type Spur, startSpur } from './spur.ts';
import { Workbench } from './workbench.ts';

/** Spur with the demo data and two browsers, in which Ines and Marek are signed in, for all tests of a file; it ends with them. */
export async function bothSignedIn(): Promise<{
  spur: Spur;
  browsers: readonly [Browser, Browser];
  ines: Workbench;
  marek: Workbench;
}> {
  const { spur, browser, bench } = await signedIn();
  const other = await openBrowser();
  afterAll(() => other.close());
  const marek = new Workbench(other.driver);
  await marek.signIn(spur, 'marek@pellow-quay.example');
  beforeEach(() => marek.beginTest());
  return { spur, browsers: [browser, other], ines: bench, marek };
}

/** Spur with the demo data and a browser in which Ines is signed in, for all tests of a file; it ends with them. */
export async function signedIn(isAnew = false): Promise<{ spur: Spur; browser: Browser; bench: Workbench }> {
  const spur = await startSpur({ withDemo: true, isAnew });
  afterAll(() => spur.stop());
  const browser = await openBrowser();
  afterAll(() => browser.close());
  const bench = new Workbench(browser.driver);
  await bench.signIn(spur);
  beforeEach(() => bench.beginTest());
  return { spur, browser, bench };
}
