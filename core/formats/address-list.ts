import { type OldPage, type LineFault, type ReadPages, unreadPage } from '../carryover/inventory.ts';

/**
 * Reads a pasted list of addresses: one a line, a title after a tab or after spaces. An address is `https://…`,
 * `http://…`, or a path that starts with `/`. Empty lines are passed over; others are faults with their line, from 1.
 */
export function readAddressList(text: string): ReadPages {
  const pages = new Map<string, OldPage>();
  const faults: LineFault[] = [];
  text.split(/\r\n|\n|\r/).forEach((raw, index) => {
    const line = raw.trim();
    if (line === '') return;
    const [address = ''] = line.split(/\s/, 1);
    const title = line.slice(address.length).trim();
    if (!isAddress(address))
      faults.push({
        line: index + 1,
        detail: `‘${short(line)}’ is not an address: it must start with https://, http:// or /.`,
      });
    else if (pages.has(address)) faults.push({ line: index + 1, detail: `${short(address)} appears twice.` });
    else pages.set(address, { ...unreadPage(address), title });
  });
  return { pages: [...pages.values()], faults };
}

/** Whether a text is an address of an old site: a whole one, or a path. */
export const isAddress = (text: string): boolean =>
  text.length <= 2000 && !/\s/.test(text) && /^(?:https?:\/\/[^/?#]|\/)/i.test(text);

export const short = (text: string): string => (text.length > 60 ? `${text.slice(0, 59)}…` : text);
