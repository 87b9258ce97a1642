import { By, Key } from 'selenium-webdriver';
import { Screen } from './screen.ts';
import type { Spur } from './spur.ts';

export const DEMO_PASSWORD = 'slipway-42';

/** The workbench as a person works with it. */
export class Workbench extends Screen {
  async signIn(spur: Spur, email = 'ines@pellow-quay.example'): Promise<void> {
    const load = () => this.driver.get(`${spur.workbench}/sign-in`);
    await load();
    await this.fill('Mail address', email).catch(async (fault: Error) => {
      // Seen once in some hundred starts, and not understood: what shows instead is told, so that the next time it is.
      console.warn(`The sign-in page did not come. ${fault.message} It shows: ${await this.text()}`);
      await load();
      await this.fill('Mail address', email);
    });
    await this.fill('Password', DEMO_PASSWORD);
    await this.press(Key.ENTER);
    await this.untilText('Sites');
  }

  /** Signs in where somebody else may be signed in. */
  async signInAs(spur: Spur, email?: string): Promise<void> {
    await this.driver.get(spur.workbench);
    await this.driver.manage().deleteAllCookies();
    await this.signIn(spur, email);
  }

  /** Lets pages of a site go live without approval. */
  async askNoApproval(site: string): Promise<void> {
    await this.driver.executeScript(`
      const path = '/api/sites/${site}/approval';
      return fetch(path).then((answer) => answer.json()).then(({ rules }) =>
        Promise.all(rules.map(({ page }) => fetch(path + '/rules/removed', {
          method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ page }),
        }))));`);
  }

  /** Told before each test: the first site that it opens is where it begins, and need not be loaded anew. */
  beginTest(): void {
    this.#isBeginning = true;
  }
  #isBeginning = false;

  /** Loads a site anew, whatever showed before. */
  async openAnew(spur: Spur, site: string, query = ''): Promise<void> {
    this.#isBeginning = false;
    await this.open(spur, site, query);
  }

  async open(spur: Spur, site: string, query = ''): Promise<void> {
    const path = `/sites/${site}${query}`;
    if (this.#isBeginning) await this.goTo(spur, path);
    else await this.driver.get(spur.workbench + path);
    this.#isBeginning = false;
    // On small screens the bar shows its signs alone.
    await this.until('the tree is there, and all that is fetched after it', () =>
      this.driver.executeScript<boolean>(
        `return document.documentElement.dataset.rest === 'here' &&
          (document.body.innerText.includes('New page') || document.querySelector('[aria-label="New page"]') !== null)`,
      ),
    );
  }

  /**
   * Goes to a screen of the workbench as a link within it does, by way of the list of sites, so that nothing of the screen before is left.
   * Where the workbench does not show yet it is loaded. That takes a multiple of the time, and nothing that is looked at afterwards.
   */
  async goTo(spur: Spur, path: string): Promise<void> {
    const isThere = await this.driver.executeAsyncScript<boolean>(
      `const [origin, path, done] = arguments;
      if (location.origin !== origin || document.documentElement.dataset.rest !== 'here') return done(false);
      const go = (to) => { history.pushState(null, '', to); dispatchEvent(new PopStateEvent('popstate', { state: null })); };
      const isOfSites = () => document.querySelector('h1')?.textContent === 'Sites';
      const when = (holds, then) => requestAnimationFrame(() => holds() ? then() : when(holds, then));
      // Nobody may be signed in there any more.
      setTimeout(() => done(false), 3000);
      go('/sites');
      when(isOfSites, () => {
        if (path !== '/sites') go(path);
        when(() => isOfSites() === (path === '/sites'), () => done(true));
      });`,
      spur.workbench,
      path,
    );
    if (!isThere) await this.driver.get(spur.workbench + path);
  }

  /** The rows that show, with their depth, as one text a row: two spaces a level. */
  async tree(): Promise<string[]> {
    return this.driver.executeScript(`
      return [...document.querySelectorAll('[role=treegrid] [role=row][aria-level]')]
        .map((row) => [Number(row.getAttribute('aria-rowindex')), '  '.repeat(row.getAttribute('aria-level') - 1) + row.querySelector('[role=gridcell]').innerText.trim().split('\\n')[0]])
        .sort((a, b) => a[0] - b[0]).map(([, text]) => text);`);
  }

  async untilTree(what: string, holds: (tree: string[]) => boolean): Promise<void> {
    let tree: string[] = [];
    await this.until(what, async () => holds((tree = await this.tree()))).catch((fault: Error) => {
      throw new Error(`${fault.message}\nThe tree:\n${tree.join('\n')}`);
    });
  }

  /** What a row says, in one line. */
  async row(title: string): Promise<string> {
    return (await (await this.find('row', new RegExp(`^${title}\\b`))).getText()).replace(/\s+/g, ' ');
  }

  untilRow = (title: string, holds: RegExp) =>
    this.until(`the row of ${title} is like ${String(holds)}`, async () => holds.test(await this.row(title)));

  async focusTree(): Promise<void> {
    await this.driver.executeScript(`document.querySelector('[data-tree-view]').focus()`);
  }

  /** Clicks the title in a row. The side sheet follows as soon as there is time: one who types there waits for it. */
  async select(title: string, ...held: string[]): Promise<void> {
    const point = async () => {
      const row = await this.find('row', new RegExp(`^${title}\\b`));
      const cell = await row.findElement(By.css('[role=gridcell] span.truncate'));
      let actions = this.driver.actions();
      for (const key of held) actions = actions.keyDown(key);
      actions = actions.click(cell);
      for (const key of held) actions = actions.keyUp(key);
      await actions.perform();
      return row;
    };
    const row = await point();
    if (held.length > 0) return;
    // Rows that scroll at this moment are no longer where they were when the pointer set out.
    if ((await row.getAttribute('aria-selected')) !== 'true') await point();
    await this.until('the side sheet is of that page', async () => {
      const heading = await this.driver.executeScript(
        `return document.querySelector('aside[aria-label="Selected page"] h2')?.textContent ?? null`,
      );
      return heading === null || String(heading).startsWith(title);
    });
  }

  /** Chooses from a list of choices, by what one of them says. */
  async choose(label: string, option: RegExp): Promise<void> {
    const field = await this.find('combobox', label);
    if ((await field.getTagName()) === 'input') {
      // A page is chosen from the tree that opens below.
      await field.click();
      return this.click('treeitem', option);
    }
    for (const one of await field.findElements(By.css('option')))
      if (option.test(await one.getText())) return one.click();
    throw new Error(`${label} has no choice like ${String(option)}.`);
  }

  /** The words of the strip along the bottom. */
  async strip(): Promise<string> {
    return (await this.driver.findElement(By.css('footer[aria-label="Trail"]'))).getText();
  }

  saved = () =>
    this.until('everything is saved', async () => {
      const status = await this.driver.findElement(By.css('header [role="status"]'));
      return (await this.driver.executeScript('return arguments[0].textContent', status)) === 'Saved';
    });
}
