import { type ReactNode, useEffect, useRef } from 'react';
import type { PageChoices } from '#core/derive/page-choices.ts';
import { derivedOf } from '#core/derive/derived.ts';
import type { Site } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { choiceId } from './choice-id.ts';

/** How many rows are listed at most; typing narrows them. */
const MAX_LISTED = 300;

/** What can be chosen besides pages, above them: the top level, an outside address, nothing. */
export interface OtherChoice {
  readonly value: string;
  readonly words: string;
}

interface PageTreeListProps {
  readonly id: string;
  readonly label: string;
  readonly others: readonly OtherChoice[];
  readonly site: Site;
  readonly choices: PageChoices;
  /** The one that Enter would take. */
  readonly active: string | null;
  readonly onChoose: (value: string) => void;
  readonly className: string;
}

/** Pages to choose from, each as deep as it stands. The keyboard stays in the field above, which walks them. */
export function PageTreeList({ id, label, others, site, choices, active, onChoose, className }: PageTreeListProps) {
  const { outline } = derivedOf(site);
  const list = useRef<HTMLUListElement>(null);
  useEffect(() => {
    list.current?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: 'nearest' });
  }, [active]);
  const rows = choices.rows.slice(0, MAX_LISTED);
  return (
    <div>
      {choices.isNear && (
        <p role="status" className="px-2 py-1 text-small text-quiet">
          Nothing is called exactly that. Similar:
        </p>
      )}
      <ul ref={list} id={id} role="tree" aria-label={label} className={`overflow-y-auto ${className}`}>
        {others.map(({ value, words }) => (
          <Choosable
            key={value}
            id={choiceId(id, value)}
            level={1}
            isActive={value === active}
            onChoose={() => onChoose(value)}
          >
            {words}
          </Choosable>
        ))}
        {rows.map((row) => {
          const { id: page, title, type } = outline.nodes[row]!;
          const words = textIn(title, site.settings.language);
          const depth = outline.depth[row]!;
          return choices.matches.has(row) ? (
            <Choosable
              key={page}
              id={choiceId(id, page)}
              level={depth + 1}
              isActive={page === active}
              onChoose={() => onChoose(page)}
            >
              <span className="truncate">{words}</span>
              {type !== 'page' && <span className="ml-2 text-tiny opacity-80">{type}</span>}
            </Choosable>
          ) : (
            <li
              key={page}
              role="treeitem"
              aria-level={depth + 1}
              aria-selected={false}
              aria-disabled
              className="flex h-7 items-center px-2 text-quiet"
              style={{ paddingLeft: indentOf(depth) }}
            >
              <span className="truncate">{words}</span>
            </li>
          );
        })}
      </ul>
      {choices.rows.length > MAX_LISTED && (
        <p className="px-2 py-1 text-small text-quiet">The first {MAX_LISTED}. Type part of a title to find more.</p>
      )}
      {rows.length === 0 && others.length === 0 && <p className="px-2 py-1 text-quiet">No title matches.</p>}
    </div>
  );
}

const indentOf = (depth: number): string => `${0.5 + depth * 1.1}rem`;

function Choosable({
  id,
  level,
  isActive,
  onChoose,
  children,
}: {
  readonly id: string;
  readonly level: number;
  readonly isActive: boolean;
  readonly onChoose: () => void;
  readonly children: ReactNode;
}) {
  return (
    // eslint-disable-next-line jsx-a11y/click-events-have-key-events -- the field above walks the list by its arrow keys
    <li
      id={id}
      role="treeitem"
      aria-level={level}
      aria-selected={isActive}
      // The keyboard stays in the field.
      onMouseDown={(event) => event.preventDefault()}
      onClick={onChoose}
      className={`flex h-7 cursor-pointer items-center rounded pr-2 ${isActive ? 'bg-accent text-on-accent' : 'hover:bg-accent-soft'}`}
      style={{ paddingLeft: indentOf(level - 1) }}
    >
      {children}
    </li>
  );
}
