import { type ReactNode, useId, useState } from 'react';
import { kindChanges } from '#core/model/kind-outline.ts';
import type { LabelId } from '#core/model/access.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Hidden } from '#core/model/page-fields.ts';
import { isKind } from '#core/model/page-label.ts';
import { nodeAt } from '#core/model/site.ts';
import type { PageChanges } from '#core/model/page-fields.ts';
import type { Edit } from '../api/site-store.ts';
import { ActionMenu } from '../ui/action-menu.tsx';
import type { CellContext } from './columns.tsx';
import { NO_KIND } from './words.ts';
import { toast } from '../ui/toast.ts';

const CELL_BUTTON =
  'inline-flex h-6 max-w-full items-center gap-1.5 truncate rounded px-1.5 -ml-1.5 hover:bg-accent-soft disabled:hover:bg-transparent';

/** Sets a field of a row; of all that are selected, where the row is one of several. */
function setFields(context: CellContext, fields: PageChanges): void {
  context.latest().store.apply(settings(context, fields));
}

/** What sets a field of a row, or of all that are selected. */
function settings(context: CellContext, fields: PageChanges | ((page: PageId) => PageChanges)): Edit[] {
  return pagesOf(context).map((page) => ({
    name: 'page.set',
    page,
    fields: typeof fields === 'function' ? fields(page) : fields,
  }));
}

/** The page of a cell; all that are selected, where it is one of several. */
function pagesOf({ page, latest }: CellContext): readonly PageId[] {
  const { chosen } = latest();
  return chosen.length > 1 && chosen.includes(page) ? chosen : [page];
}

/** Why a page is in no menu though it may be offered to them, in words. */
export const KEPT_OUT_WORDS = {
  hidden: { short: 'Hidden', long: 'Hidden pages are in no menu' },
  'when needed': { short: 'If needed', long: 'It is shown only when needed, and is in no menu by itself' },
} as const;

/** Whether the tree offers the page to menus; pressing it changes that. */
export function InMenusCell({
  isIn,
  keptOut,
  context,
}: {
  readonly isIn: boolean;
  /** What keeps it out of menus, though it is offered to them. */
  readonly keptOut: keyof typeof KEPT_OUT_WORDS | null;
  readonly context: CellContext;
}) {
  const kept = isIn && keptOut !== null ? KEPT_OUT_WORDS[keptOut] : null;
  const words = kept ? kept.short : isIn ? 'In' : 'Off';
  return (
    <button
      type="button"
      tabIndex={-1}
      aria-label={kept ? `${kept.long}: ${context.title}` : `${words} menus: ${context.title}`}
      title={kept ? `${kept.long}.${keptOut === 'hidden' ? ' Once it is shown, it is in menus.' : ''}` : undefined}
      disabled={!context.mayEdit || keptOut === 'when needed'}
      onClick={() => setFields(context, { inMenus: !isIn })}
      className={CELL_BUTTON}
    >
      <svg width="14" height="14" aria-hidden fill="none">
        <path d="M7 0v14" stroke="currentColor" strokeWidth="1.75" opacity={isIn && !kept ? 1 : 0.45} />
        {isIn && !kept && <circle cx="7" cy="7" r="4" fill="var(--raised)" stroke="currentColor" strokeWidth="1.75" />}
      </svg>
      <span className={isIn && !kept ? '' : 'text-quiet'}>{words}</span>
    </button>
  );
}

const HIDDEN_WORDS: Readonly<Record<Hidden, string>> = { no: 'Shown', page: 'Page hidden', branch: 'Branch hidden' };

/** Whether the page is hidden, by itself or by a branch above; pressing it offers the choices. */
export function HiddenCell({
  hidden,
  hiddenBy,
  context,
}: {
  readonly hidden: Hidden;
  /** The title of the page above that hides its branch, or null. */
  readonly hiddenBy: string | null;
  readonly context: CellContext;
}) {
  const look = hidden !== 'no' ? 'font-medium text-attention' : hiddenBy !== null ? 'text-attention' : 'text-quiet';
  return (
    <ChoiceCell
      field="Hidden"
      words={hiddenBy === null ? HIDDEN_WORDS[hidden] : `By ‘${hiddenBy}’`}
      title={hiddenBy === null ? undefined : `Hidden by ‘${hiddenBy}’, which hides its branch`}
      look={look}
      label="Who can reach it"
      context={context}
      choices={[
        {
          words: hiddenBy === null ? 'Shown' : `As the branch of ‘${hiddenBy}’: hidden`,
          isChosen: hidden === 'no',
          fields: { hidden: 'no' },
        },
        { words: 'Hide this page', isChosen: hidden === 'page', fields: { hidden: 'page' } },
        { words: 'Hide the branch', isChosen: hidden === 'branch', fields: { hidden: 'branch' } },
      ]}
    />
  );
}

/** The kind of a page; pressing it offers those that the site has. */
export function KindCell({
  own,
  name,
  context,
}: {
  /** The kind's id; '' where the page has none. */
  readonly own: string;
  readonly name: string | null;
  readonly context: CellContext;
}) {
  return (
    <ChoiceCell
      field="Kind"
      words={name ?? '–'}
      look={name === null ? 'text-quiet' : ''}
      label="What it is about"
      context={context}
      choices={() => kindChoices(own, context)}
    />
  );
}

function kindChoices(own: string, { latest }: CellContext): CellChoice[] {
  const { labels } = latest().site.settings;
  const fieldsOf = (kind: LabelId | null) => (page: PageId) => kindChanges(nodeAt(latest().site, page), kind, labels);
  return [
    { words: NO_KIND, isChosen: own === '', fields: fieldsOf(null) },
    ...labels.filter(isKind).map(({ id, name }) => ({ words: name, isChosen: own === id, fields: fieldsOf(id) })),
  ];
}

export interface CellChoice {
  readonly words: string;
  readonly isChosen: boolean;
  /** What choosing it sets of a page. */
  readonly fields?: PageChanges | ((page: PageId) => PageChanges);
  /** What choosing it does besides, for the pages that are meant. */
  readonly editsFor?: (pages: readonly PageId[]) => readonly Edit[];
}

const editsOf = (context: CellContext, { fields, editsFor }: CellChoice): Edit[] => [
  ...(fields ? settings(context, fields) : []),
  ...(editsFor ? editsFor(pagesOf(context)) : []),
];

/** A value that is one of a few; pressing it offers them. */
export function ChoiceCell({
  field,
  words,
  sign,
  title,
  look,
  label,
  choices,
  why,
  context,
}: {
  /** What the value is, for those who do not see the column. */
  readonly field: string;
  readonly words: string;
  readonly sign?: ReactNode;
  readonly title?: string;
  readonly look: string;
  readonly label: string;
  /** A function is asked when the choices are. */
  readonly choices: readonly CellChoice[] | (() => readonly CellChoice[]);
  /** Why the value is what it is, as a sentence; asked for when the choices are. */
  readonly why?: () => string;
  readonly context: CellContext;
}) {
  // The menu itself is made when it is asked for: a screen has many of these cells.
  const [isAsked, setAsked] = useState(false);
  const button = (
    <button
      type="button"
      tabIndex={-1}
      aria-haspopup="menu"
      onClick={isAsked ? undefined : () => setAsked(true)}
      disabled={!context.mayEdit}
      aria-label={`${field}: ${context.title}, ${words}`}
      title={title}
      className={`${CELL_BUTTON} ${look}`}
    >
      {sign}
      <span className="truncate">{words}</span>
    </button>
  );
  if (!isAsked) return button;
  return (
    <ActionMenu
      label={label}
      note={why?.()}
      isOpenAtFirst
      onClose={() => {
        setAsked(false);
        context.latest().setPreview('cell', null);
        context.latest().focusTree();
      }}
      actions={(typeof choices === 'function' ? choices() : choices).map((choice) => ({
        words: choice.words,
        isChosen: choice.isChosen,
        run: () => context.latest().store.apply(editsOf(context, choice)),
        look: () => context.latest().setPreview('cell', choice.isChosen ? null : editsOf(context, choice)),
      }))}
      trigger={button}
    />
  );
}

/** A value that is typed: pressing it makes it a field, Enter or leaving it saves, Escape leaves it as it was. */
export function EntryCell({
  field,
  value,
  words,
  type,
  look,
  longest,
  suggestions,
  fieldsOf,
  faultOf,
  context,
}: {
  readonly field: string;
  readonly value: string;
  readonly words: string;
  readonly type: 'text' | 'number';
  readonly look: string;
  readonly longest?: number;
  /** What others have typed here, asked for when the typing begins. */
  readonly suggestions?: () => readonly string[];
  /** What the typed text sets, or null where it is none. */
  readonly fieldsOf: (text: string) => PageChanges | null;
  /** What is wrong with the typed text, or null: what is wrong stays as it was typed. */
  readonly faultOf?: (text: string) => string | null;
  readonly context: CellContext;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const list = useId();
  if (typed === null)
    return (
      <button
        type="button"
        tabIndex={-1}
        disabled={!context.mayEdit}
        aria-label={`${field}: ${context.title}, ${words === '' ? 'none' : words}`}
        onClick={() => setTyped(value)}
        className={`${CELL_BUTTON} min-w-8 ${look}`}
        title={words}
      >
        <span className="truncate">{words}</span>
      </button>
    );
  const end = (isKept: boolean): boolean => {
    const wrong = isKept && typed !== value ? (faultOf?.(typed) ?? null) : null;
    setFault(wrong);
    if (wrong !== null) {
      toast.error(wrong);
      return false;
    }
    const fields = isKept && typed !== value ? fieldsOf(typed) : null;
    setTyped(null);
    if (fields !== null) setFields(context, fields);
    return true;
  };
  return (
    <>
      <input
        ref={focusOnce}
        type={type}
        min={type === 'number' ? 0 : undefined}
        value={typed}
        maxLength={longest}
        list={suggestions ? list : undefined}
        aria-label={`${field} of ${context.title}`}
        aria-invalid={fault === null ? undefined : true}
        title={fault ?? undefined}
        onMouseDown={(event) => event.stopPropagation()}
        onFocus={(event) => event.target.select()}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => end(true)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' && event.key !== 'Escape') return;
          event.stopPropagation();
          event.preventDefault();
          if (end(event.key === 'Enter')) context.latest().focusTree();
        }}
        className="-ml-1.5 h-6 w-full min-w-0 rounded border border-accent bg-raised px-1 outline-none aria-invalid:border-danger"
      />
      {suggestions && (
        <datalist id={list}>
          {suggestions().map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
      )}
    </>
  );
}

/** Called once, when the field is there. */
const focusOnce = (input: HTMLInputElement | null) => input?.focus({ preventScroll: true });
