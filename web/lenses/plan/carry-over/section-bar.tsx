import { ChevronLeft, ChevronRight } from 'lucide-react';
import type { CarryOverSection, SectionsOf } from '#core/carryover/sections.ts';
import { IconButton } from '../../../ui/button.tsx';
import { useCarryOverState } from './carry-over-context.ts';

const WAYS: readonly { readonly value: SectionsOf | 'all'; readonly words: string }[] = [
  { value: 'all', words: 'Everything at once' },
  { value: 'plan', words: 'Branch by branch of the plan' },
  { value: 'old', words: 'Section by section of the old site' },
];

/** Goes through the carry-over section by section, and says how far each is. */
export function SectionBar() {
  const { sections, section, sectionsOf, goThrough } = useCarryOverState();
  const at = section === null ? -1 : sections.indexOf(section);
  const done = sections.filter(isDone).length;
  const go = (next: number) => goThrough(sectionsOf, sections[next]!.key);
  return (
    <div
      role="group"
      aria-label="Sections"
      className="flex min-h-10 flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-paper px-4 py-1"
    >
      <select
        aria-label="Show"
        value={sectionsOf ?? 'all'}
        onChange={(event) => goThrough(event.target.value === 'all' ? null : (event.target.value as SectionsOf))}
        className="h-7 max-w-full rounded border border-edge bg-raised px-1"
      >
        {WAYS.map(({ value, words }) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
      {section !== null && (
        <>
          <span className="flex min-w-0 items-center gap-1">
            <IconButton name="The section before" disabled={at === 0} onClick={() => go(at - 1)}>
              <ChevronLeft size={16} aria-hidden />
            </IconButton>
            <select
              aria-label="Section"
              value={section.key}
              onChange={(event) => goThrough(sectionsOf, event.target.value)}
              className="h-7 max-w-80 min-w-0 rounded border border-edge bg-raised px-1 font-medium"
            >
              {sections.map((one) => (
                <option key={one.key} value={one.key}>
                  {`${one.name}: ${one.settled} of ${one.all}`}
                </option>
              ))}
            </select>
            <IconButton name="The next section" disabled={at === sections.length - 1} onClick={() => go(at + 1)}>
              <ChevronRight size={16} aria-hidden />
            </IconButton>
          </span>
          <p aria-live="polite" className="text-small">
            <span className={isDone(section) ? 'text-accent' : 'text-attention'}>
              {isDone(section) ? 'All settled here' : `${section.all - section.settled} to settle here`}
            </span>
            <span className="text-quiet">
              {' '}
              · {done} of {sections.length} sections done
            </span>
          </p>
        </>
      )}
    </div>
  );
}

const isDone = ({ all, settled }: CarryOverSection): boolean => all === settled;
