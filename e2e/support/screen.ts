import { type IRectangle, Key, type WebDriver, type WebElement } from 'selenium-webdriver';

/** Where to look for the elements of a role; the browser's own computed role and name decide. */
const CANDIDATES = {
  button: 'button, [role="button"]',
  textbox: 'input, textarea, [contenteditable="true"]',
  checkbox: 'input[type="checkbox"], [role="checkbox"]',
  radio: 'input[type="radio"]',
  combobox: 'select, [role=combobox]',
  link: 'a[href]',
  row: '[role="row"]',
  treegrid: '[role="treegrid"]',
  dialog: '[role="dialog"]',
  menuitem: '[role="menuitem"]',
  tab: '[role="tab"]',
  option: '[role="option"]',
  alert: '[role="alert"]',
  tree: '[role="tree"]',
  treeitem: '[role="treeitem"]',
  slider: 'input[type="range"]',
  separator: '[role="separator"]',
  img: '[role="img"]',
} as const;
type Role = keyof typeof CANDIDATES;
type Name = string | RegExp;

const WAIT_MS = 20_000;
/** So long something may lie over what is to be clicked: a message that comes in, a dialog that goes. */
const COVERED_MS = 2000;

/** What a person sees and does: things are found by their role and name, and waited for. */
export class Screen {
  readonly driver: WebDriver;

  constructor(driver: WebDriver) {
    this.driver = driver;
  }

  /** The element of that role and name that shows. @throws after 20 seconds, saying what was there instead. */
  async find(role: Role, name: Name, within?: WebElement): Promise<WebElement> {
    for (const end = Date.now() + WAIT_MS; Date.now() < end;) {
      const [found] = await this.#named(name, await this.#candidates(role, { name, within, show: true }));
      if (found) return found;
      await pause(60);
    }
    const there: string[] = [];
    for (const element of (await this.#candidates(role, { within, show: true })).slice(0, 30))
      there.push(await element.getAccessibleName());
    throw new Error(`No ${role} named ${String(name)}; there are: ${there.join(' | ')}`);
  }

  async has(role: Role, name: Name): Promise<boolean> {
    return (await this.#named(name, await this.#candidates(role, { name }))).length > 0;
  }

  /** Those of the elements to which the browser gives that name. */
  async #named(name: Name, candidates: readonly WebElement[]): Promise<WebElement[]> {
    for (const element of candidates) {
      try {
        if (matches((await element.getAccessibleName()).trim(), name)) return [element];
      } catch (fault) {
        if ((fault as Error).name !== 'StaleElementReferenceError') throw fault;
      }
    }
    return [];
  }

  /**
   * The elements that may have the role: with a name, those that say it in any way in which an element can be named. To ask the browser for the
   * names of all buttons costs seconds, so it is asked for those alone.
   */
  #candidates(
    role: Role,
    { name, within, show = false }: { readonly name?: Name; readonly within?: WebElement; readonly show?: boolean },
  ): Promise<WebElement[]> {
    return this.driver.executeScript(
      `const [within, css, wanted, show] = arguments;
      const all = [...(within ?? document).querySelectorAll(css)].filter((one) =>
        !show || one.getClientRects().length > 0 && one.checkVisibility({ opacityProperty: true, visibilityProperty: true }));
      if (wanted === null) return all;
      const plain = (text) => (text ?? '').replace(/\\s+/g, ' ').trim();
      const is = wanted.text === undefined
        ? (text) => new RegExp(wanted.source, wanted.flags).test(text)
        : (text) => text.includes(wanted.text);
      const namesOf = (one) => [
        one.getAttribute('aria-label'), one.innerText, one.textContent, one.title, one.placeholder, one.alt,
        (one.getAttribute('aria-labelledby') ?? '').split(' ').map((id) => document.getElementById(id)?.textContent ?? '').join(' '),
        ...[...one.labels ?? []].flatMap((label) => [label.innerText, label.textContent]),
        // Of parts that have names of their own, a name is put together.
        ...one.querySelector('[aria-label], [alt], [aria-hidden]') ? [nameOfParts(one)] : [],
      ];
      const nameOfParts = (node) => node.nodeType === 3 ? node.data : node.nodeType !== 1 || node.getAttribute('aria-hidden') === 'true' ? ''
        : node.getAttribute('aria-label') ?? node.getAttribute('alt') ?? [...node.childNodes].map(nameOfParts).join(' ');
      return all.filter((one) => namesOf(one).some((text) => is(plain(text))));`,
      within ?? null,
      CANDIDATES[role],
      name === undefined
        ? null
        : typeof name === 'string'
          ? { text: name }
          : { source: name.source, flags: name.flags },
      show,
    );
  }

  async click(role: Role, name: Name): Promise<void> {
    await this.#use(role, name, (element) => element.click());
  }

  /** Types into a field in place of what it holds. */
  fill(name: Name, text: string): Promise<WebElement> {
    return this.#use('textbox', name, (field) => field.sendKeys(Key.chord(Key.CONTROL, 'a'), text));
  }

  /**
   * Does something with an element that shows; once more where another one has just taken its place.
   * @throws after 2 seconds where something covers it, saying what
   */
  async #use(role: Role, name: Name, act: (element: WebElement) => Promise<void>): Promise<WebElement> {
    let element!: WebElement;
    let coveredSince: number | null = null;
    await this.until(`the ${role} ‘${String(name)}’ can be used`, async () => {
      element = await this.find(role, name);
      try {
        await act(element);
      } catch (fault) {
        const { name: kind, message } = fault as Error;
        if (kind !== 'ElementClickInterceptedError') throw fault;
        coveredSince ??= Date.now();
        if (Date.now() - coveredSince < COVERED_MS) return false;
        throw new Error(`Something covers the ${role} ‘${String(name)}’: ${message.split('\n')[0]}`, { cause: fault });
      }
      return true;
    });
    return element;
  }

  /** Presses keys wherever the keyboard is. */
  async press(...keys: string[]): Promise<void> {
    for (const key of keys) await this.driver.actions().sendKeys(key).perform();
  }

  async chord(...keys: string[]): Promise<void> {
    const held = keys.slice(0, -1);
    let actions = this.driver.actions();
    for (const key of held) actions = actions.keyDown(key);
    actions = actions.sendKeys(keys.at(-1)!);
    for (const key of held) actions = actions.keyUp(key);
    await actions.perform();
  }

  /** The text of the page as it shows. */
  async text(): Promise<string> {
    // WebDriver's own way asks of each element whether it shows, which takes sixty times as long.
    return this.driver.executeScript(`return document.body?.innerText ?? ''`);
  }

  /** Where an element of that role and name is, once it has come to rest there. */
  async restOf(role: Role, name: Name): Promise<IRectangle> {
    let box: IRectangle | null = null;
    await this.until(`‘${String(name)}’ has come to rest`, async () => {
      const before = box;
      box = await (await this.find(role, name)).getRect();
      await pause(100);
      return before !== null && before.x === box.x && before.y === box.y;
    });
    return box!;
  }

  /** Waits until something holds. @throws after 20 seconds, with what was waited for. */
  async until(what: string, holds: () => Promise<boolean>): Promise<void> {
    for (const end = Date.now() + WAIT_MS; Date.now() < end;) {
      try {
        if (await holds()) return;
      } catch (fault) {
        // Between two pages there is nothing to be found, and what was found before is gone, not quite there, or on its way.
        const { name, message } = fault as Error;
        const isBetween =
          /^(StaleElementReference|NoSuchElement|NoSuchFrame|ElementNotInteractable)Error$/.test(name) ||
          message.includes('does not belong to the document');
        if (!isBetween) throw fault;
      }
      await pause(40);
    }
    throw new Error(
      `Waited 20 seconds for this: ${what}. The screen shows:\n${(await this.text()).slice(0, 900).replace(/\n/g, ' / ')}`,
    );
  }

  untilText = (text: string) => this.until(`the screen says ‘${text}’`, async () => (await this.text()).includes(text));
  untilNoText = (text: string) =>
    this.until(`the screen no longer says ‘${text}’`, async () => !(await this.text()).includes(text));
}

export const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));
const matches = (label: string, name: Name): boolean => (typeof name === 'string' ? label === name : name.test(label));
