import type { KindField } from '../model/kind-field.ts';
import type { Site } from '../model/site.ts';
import type { FieldContext } from './field-type.ts';
import { valueAs } from './values.ts';

/** What another type, or other choices, makes of the values that pages have in a field. Nothing is lost: values are kept as they were written. */
export interface TypeChange {
  /** How many pages say something in it. */
  readonly said: number;
  /** What would no longer be shown, as it is written, each once and at most so many as asked for. */
  readonly unread: readonly string[];
  readonly unreadCount: number;
}

/** @param next the field as it would be @param most so many of the values that cannot be read are named */
export function typeChangeOf(site: Site, next: KindField, context: FieldContext, most = 3): TypeChange {
  let said = 0;
  let unreadCount = 0;
  const unread = new Set<string>();
  site.nodes.forEach(({ details, removedWith }) => {
    const kept = details?.[next.id];
    if (kept === undefined || removedWith !== null) return;
    said++;
    if (valueAs(next, kept, context) !== null) return;
    unreadCount++;
    if (unread.size < most) unread.add(kept);
  });
  return { said, unread: [...unread], unreadCount };
}

/** The choices that a list of names makes of those before: one whose name stays is the same, and so is one that was renamed in its place. */
export function choicesNamed(
  names: readonly string[],
  before: KindField['choices'],
  newId: () => string,
): KindField['choices'] {
  const kept = new Set(names.map((name) => name.toLowerCase()));
  const taken = new Set<string>();
  return names.map((name, at) => {
    const same = before.find((one) => one.name.toLowerCase() === name.toLowerCase());
    const inPlace = before.length === names.length ? before[at] : undefined;
    const was = same ?? (inPlace && !kept.has(inPlace.name.toLowerCase()) ? inPlace : undefined);
    const id = was !== undefined && !taken.has(was.id) ? was.id : newId();
    taken.add(id);
    return { id, name };
  });
}
