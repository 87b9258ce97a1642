import { By, type IRectangle, Key, type WebDriver, type WebElement } from 'selenium-webdriver';

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
} as const;
type Role = keyof typeof CANDIDATES;
type Name = string | RegExp;

const WAIT_MS = 20_000;
/** So long something may lie over what is to be clicked: a message that comes in, a dialog that goes. */
const COVERED_MS = 2000;
/** What is not found among the likely elements is looked for among all so often. */
const THOROUGH_AFTER_MS = 1500;

/** What a person sees and does: things are found by their role and name, and waited for. */
export class Screen {
  readonly driver: WebDriver;

  constructor(driver: WebDriver) {
    this.driver = driver;
  }

  /** The element of that role and name that shows. @throws after 20 seconds, saying what was there instead. */
  async find(role: Role, name: Name, within?: WebElement): Promise<WebElement> {
    let seen: string[] = [];
    let thoroughAt = Date.now() + THOROUGH_AFTER_MS;
    for (const end = Date.now() + WAIT_MS; Date.now() < end;) {
      const isThorough = Date.now() >= thoroughAt;
      // The error names what was there when all of them were looked at.
      if (isThorough) seen = [];
      if (isThorough) thoroughAt = Date.now() + THOROUGH_AFTER_MS;
      for (const element of await this.#candidates(role, isThorough ? null : name, within)) {
        try {
          const label = (await element.getAccessibleName()).trim();
          if (matches(label, name) && (await element.isDisplayed())) return element;
          if (isThorough) seen.push(label);
        } catch (fault) {
          if ((fault as Error).name !== 'StaleElementReferenceError') throw fault;
        }
      }
      await pause(60);
    }
    throw new Error(`No ${role} named ${String(name)}; there are: ${seen.slice(0, 30).join(' | ')}`);
  }

  /**
   * The elements that may have the role: with a name, those that look as if they had that one too. To ask the browser
   * for the name of every button costs seconds, so it is asked for the likely ones first.
   */
  #candidates(role: Role, name: Name | null, within?: WebElement): Promise<WebElement[]> {
    return this.driver.executeScript(
      `const [within, css, wanted] = arguments;
      const all = [...(within ?? document).querySelectorAll(css)];
      if (wanted === null) return all;
      const plain = (text) => (text ?? '').replace(/\\s+/g, ' ').trim();
      const is = wanted.text === undefined
        ? (text) => new RegExp(wanted.source, wanted.flags).test(text)
        : (text) => text.includes(wanted.text);
      return all.filter((one) =>
        [one.getAttribute('aria-label'), one.innerText, one.textContent, one.title, one.labels?.[0]?.textContent]
          .some((text) => is(plain(text))));`,
      within ?? null,
      CANDIDATES[role],
      name === null ? null : typeof name === 'string' ? { text: name } : { source: name.source, flags: name.flags },
    );
  }

  async has(role: Role, name: Name): Promise<boolean> {
    for (const element of await this.driver.findElements(By.css(CANDIDATES[role]))) {
      const label = await element.getAccessibleName().catch(() => '');
      if (matches(label.trim(), name)) return true;
    }
    return false;
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
    return (await this.driver.findElement(By.css('body'))).getText();
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
          /^(StaleElementReference|NoSuchElement|ElementNotInteractable)Error$/.test(name) ||
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
