import { CircleAlert, CircleCheck, DoorOpen, Eye } from 'lucide-react';
import { useMemo, useState } from 'react';
import { type OpeningLine, type OpeningPoint, openingList } from '#core/checks/opening-list.ts';
import { momentWords } from '#core/model/moment-words.ts';
import type { WholeKind } from '../../settings/settings-kind.ts';
import { wordsOfFault } from '../../api/client.ts';
import { useTextLinks } from '../../api/links.ts';
import { setWorks, useWorks } from '../../api/releases.ts';
import { fieldOfMoment, momentOfField } from '../../fields/site-moment.ts';
import { pages } from '../../tree/words.ts';
import { MomentField } from '../../fields/day-field.tsx';
import { Button } from '../../ui/button.tsx';
import { Choice, TextArea } from '../../ui/field.tsx';
import { Notice } from '../../ui/notice.tsx';
import { useNow } from '../../ui/use-now.ts';
import type { Lens } from '../../workbench/lenses.ts';
import type { SettingsKey } from '../../settings/settings-keys.ts';
import { type DialogName, useWorkbench } from '../../workbench/workbench-context.tsx';
import { titleIn } from './publish-words.ts';
import { warnOfUnconfirmed } from './unconfirmed.ts';
import { toast } from '../../ui/toast.ts';

interface PointWords {
  readonly there: string;
  readonly missing: string;
  /** Where it is mended. */
  readonly lens: Lens;
  readonly dialog?: DialogName;
  readonly beside?: SettingsKey;
}

const POINTS: Readonly<Record<OpeningPoint, PointWords>> = {
  name: {
    there: 'The site has a name.',
    missing: 'The site has no name yet.',
    lens: 'write',
    dialog: 'renameSite',
  },
  home: { there: 'It has a home page.', missing: 'No page can be the home page. Make one.', lens: 'write' },
  'home open': {
    there: 'Everyone can open the home page.',
    missing: 'Not everyone can open the home page.',
    lens: 'access',
  },
  'not-found page': {
    there: 'You have your own not-found page.',
    missing: 'You have no not-found page. Visitors get a plain one.',
    lens: 'access',
  },
  menu: {
    there: 'A layout shows a menu with entries.',
    missing: 'No layout shows a menu with entries.',
    lens: 'menus',
    beside: 'layouts',
  },
  texts: { there: 'There is something on every page.', missing: 'have no text and list nothing', lens: 'write' },
  descriptions: {
    there: 'Every page that search engines show has a description.',
    missing: 'have no description',
    lens: 'write',
  },
  closed: { there: 'Everyone can open every page.', missing: 'are hidden or not open to everyone', lens: 'access' },
  links: {
    there: 'Every link between pages leads somewhere.',
    missing: 'have a link that leads astray',
    lens: 'checks',
  },
};

/** What the site still needs before visitors come, and whether it is open. */
export const OPENING: WholeKind = {
  edits: 'publish',
  title: 'Opening',
  Sign: DoorOpen,
  description: 'What is still missing before visitors come, the site’s time zone, and closing it for a while.',
  Whole: Opening,
};

function Opening() {
  const { site, shown, setBeside, mayPublish } = useWorkbench();
  const works = useWorks(site.key);
  const now = useNow();
  const links = useTextLinks(site.key, shown.revision)?.draft;
  const lines = useMemo(() => openingList(site, now, links ?? []), [site, now, links]);
  const isOpened = site.liveSettings !== null;
  const missing = lines.filter(({ state }) => state === 'missing').length;
  return (
    <div className="flex flex-col gap-5">
      <p className="font-medium">
        {!isOpened
          ? 'The site opens with the first release.'
          : works
            ? 'The site is closed for works.'
            : 'The site is open.'}
      </p>
      <ul aria-label="Before visitors come" className="divide-y divide-rule">
        {lines.map((line) => (
          <OneLine key={line.point} line={line} />
        ))}
      </ul>
      {!isOpened && mayPublish && (
        <div>
          <Button look="main" onClick={() => setBeside({ kind: 'going-live', id: null })}>
            {missing > 0 ? `Open the site anyway…` : 'Open the site…'}
          </Button>
        </div>
      )}
      <TimeZone />
      {isOpened && mayPublish && works !== undefined && <WorksPart key={String(works?.until)} />}
    </div>
  );
}

/** The clock by which the site's moments are said and set. */
function TimeZone() {
  const { site, store, mayEdit } = useWorkbench();
  const { timeZone } = site.settings;
  const all = useMemo(() => [...new Set([timeZone, 'UTC', ...Intl.supportedValuesOf('timeZone')])].sort(), [timeZone]);
  return (
    <Choice
      label="Time zone of the site"
      hint="Scheduled releases use this time zone, and lists show times in it."
      value={timeZone}
      disabled={!mayEdit}
      onChange={(event) => store.apply([{ name: 'site.set', fields: { timeZone: event.target.value } }])}
    >
      {all.map((one) => (
        <option key={one} value={one}>
          {one.replaceAll('_', ' ')}
        </option>
      ))}
    </Choice>
  );
}

const SIGNS = { there: CircleCheck, missing: CircleAlert, 'to look at': Eye } as const;
const SIGN_WORDS = { there: 'There', missing: 'Missing', 'to look at': 'To look at' } as const;
const MAX_NAMED = 4;

function OneLine({ line: { point, state, pages: of } }: { readonly line: OpeningLine }) {
  const { site, setLens, setDialog, setBeside, select } = useWorkbench();
  const { there, missing, lens, dialog, beside } = POINTS[point];
  const Sign = SIGNS[state];
  const names = of.slice(0, MAX_NAMED).map((page) => `‘${titleIn(site, page)}’`);
  const words =
    state === 'there'
      ? there
      : state === 'missing'
        ? missing
        : `${pages(of.length)} ${of.length === 1 ? missing.replace(/^(have|are|link)/, (verb) => ({ have: 'has', are: 'is', link: 'links' })[verb]!) : missing}: ${names.join(', ')}${of.length > MAX_NAMED ? ' and others' : ''}.`;
  const go = () => {
    setLens(lens);
    if (beside) setBeside({ kind: beside, id: null });
    if (of.length > 0) select({ active: of[0]!, chosen: new Set(of), anchor: of[0]! });
    if (dialog) setDialog(dialog);
  };
  return (
    <li className="flex items-start gap-3 py-1.5">
      <Sign
        size={17}
        aria-hidden
        className={`mt-0.5 shrink-0 ${state === 'missing' ? 'text-danger' : state === 'there' ? 'text-accent' : 'text-attention'}`}
      />
      <p className={`min-w-0 flex-1 ${state === 'there' ? 'text-quiet' : ''}`}>
        <span className="sr-only">{SIGN_WORDS[state]}: </span>
        {words}
      </p>
      {state !== 'there' && (
        <Button look="quiet" isTight className="h-7" onClick={go}>
          Go there
        </Button>
      )}
    </li>
  );
}

/** Closes the site for works, or opens it again. */
function WorksPart() {
  const { site } = useWorkbench();
  const { timeZone } = site.settings;
  const works = useWorks(site.key) ?? null;
  const [words, setWords] = useState(works?.words ?? '');
  const [until, setUntil] = useState(works?.until ? fieldOfMoment(new Date(works.until), timeZone) : '');
  const [fault, setFault] = useState<string | null>(null);
  const set = async (next: typeof works) => {
    setFault(null);
    try {
      warnOfUnconfirmed(await setWorks(site.key, next));
      toast.success(next ? 'Visitors get a notice now. Walks show the site as it is.' : 'The site is open again.');
    } catch (reason) {
      setFault(wordsOfFault(reason));
    }
  };
  if (works)
    return (
      <section aria-labelledby="works" className="rounded-md bg-attention-soft px-4 py-3">
        <h3 id="works" className="font-medium text-attention">
          Closed for works{works.until && ` until ${momentWords(works.until, timeZone)}`}
        </h3>
        <p className="mb-2 text-small">
          {works.words || 'Visitors see a notice that the site is being worked on.'} Search engines are told to come
          back later.
        </p>
        {fault && <Notice>{fault}</Notice>}
        <Button look="main" onClick={() => void set(null)}>
          Open the site again
        </Button>
      </section>
    );
  return (
    <section aria-labelledby="works" className="flex flex-col gap-3 border-t border-rule pt-4">
      <h3 id="works" className="font-display text-large font-semibold">
        Close for works
      </h3>
      <p className="text-small text-quiet">
        Every address answers with a notice (503), so search engines forget nothing. You can still walk through the
        site.
      </p>
      {fault && <Notice>{fault}</Notice>}
      <TextArea
        label="What visitors will read"
        rows={2}
        maxLength={600}
        placeholder="We are moving the workshops’ pages. The office answers the telephone."
        value={words}
        onChange={(event) => setWords(event.target.value)}
      />
      <MomentField
        label="Until"
        hint={`In ${timeZone} time; may be left empty. The site does not reopen by itself.`}
        value={until}
        onSet={setUntil}
      />
      <div>
        <Button
          look="danger"
          onClick={() => void set({ words, until: momentOfField(until, timeZone)?.toISOString() ?? null })}
        >
          Close the site for works
        </Button>
      </div>
    </section>
  );
}
