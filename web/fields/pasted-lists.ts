/** In the styles of paragraphs that some word processors write for the items of a list: which list, and how deep. */
const ITEM = /mso-list:\s*l\d+\s+level(\d+)/i;
/** The marks of lists that count: a number, a letter or a Roman numeral with a full stop or a bracket. */
const COUNTED = /^\(?(?:\d{1,3}|[a-z]|[ivxlcdm]{1,6})[.)]/i;

/** Makes lists of paragraphs that only look like items: their marks are drawn, and how deep they stand is said by a style. */
export function listsOfParagraphs(page: Document): void {
  const items = [...page.querySelectorAll<HTMLElement>('p[style*="mso-list" i]')].filter(
    (one) => ITEM.test(one.getAttribute('style') ?? '') && one.closest('li') === null,
  );
  let open: { readonly depth: number; readonly list: HTMLElement }[] = [];
  let last: Element | null = null;
  for (const item of items) {
    const depth = Number(ITEM.exec(item.getAttribute('style')!)![1]);
    const isCounted = COUNTED.test(takeMark(item));
    if (last === null || previous(item) !== last) open = [];
    while (open.length > 0 && open.at(-1)!.depth > depth) open.pop();
    if (open.at(-1)?.depth !== depth) {
      const list = page.createElement(isCounted ? 'ol' : 'ul');
      const within = open.at(-1)?.list.lastElementChild;
      if (within) within.append(list);
      else item.before(list);
      open.push({ depth, list });
    }
    const entry = page.createElement('li');
    const line = page.createElement('p');
    line.append(...item.childNodes);
    entry.append(line);
    open.at(-1)!.list.append(entry);
    item.remove();
    last = open[0]!.list;
  }
}

/** What stands before an element, spaces aside. */
function previous(element: Element): Element | null {
  for (let at: ChildNode | null = element.previousSibling; at; at = at.previousSibling) {
    if (at instanceof Element) return at;
    if ((at.textContent ?? '').trim() !== '') return null;
  }
  return null;
}

/** Takes the drawn mark out of an item, and gives it. */
function takeMark(item: HTMLElement): string {
  const drawn = item.querySelector<HTMLElement>('span[style*="mso-list:Ignore" i], span[style*="mso-list: Ignore" i]');
  const words = (drawn?.textContent ?? '').trim();
  drawn?.remove();
  return words;
}
