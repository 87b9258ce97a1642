import { momentWords } from '#core/model/moment-words.ts';
import {
  ArrowLeftRight,
  Bot,
  CalendarClock,
  Footprints,
  ShieldCheck,
  Tag,
  UserRound,
  UserRoundPen,
  UsersRound,
} from 'lucide-react';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import type { BarAction } from '../../workbench/bar-action.ts';

export function AccessSays() {
  const { site } = useWorkbench();
  return (
    <p className="text-quiet">
      {site.settings.audiences.length === 0
        ? 'Everything is open to everyone. Add an audience to restrict pages to it.'
        : 'Two bars: the page has its own rule.'}
    </p>
  );
}

/** Who the site is for, and ways to see what each of them gets. */
export function useAccessActions(): readonly BarAction[] {
  const { site, moment, may, setBeside, run } = useWorkbench();
  const { audiences, labels } = site.settings;
  return [
    {
      label: 'Audiences',
      count: audiences.length,
      words: 'Audiences…',
      also: ['groups', 'members', 'who can see'],
      Sign: UsersRound,
      run: () => setBeside({ kind: 'audiences', id: null }),
    },
    {
      label: 'Labels',
      count: labels.length,
      words: 'Labels and kinds…',
      also: ['tags', 'page types', 'categories'],
      Sign: Tag,
      run: () => setBeside({ kind: 'labels', id: null }),
    },
    {
      label: moment === null ? 'Now' : momentWords(moment, site.settings.timeZone),
      words: 'Now, or another moment: who can open what…',
      also: ['time', 'date', 'window', 'later', 'preview', 'now'],
      Sign: CalendarClock,
      run: () => setBeside({ kind: 'moment', id: null }),
    },
    {
      label: 'Walk',
      words: 'Walk through the site as a visitor',
      also: ['preview', 'view as', 'impersonate', 'see the site'],
      Sign: Footprints,
      run: () => run('walk'),
    },
    ...(audiences.length > 0
      ? [
          {
            label: 'Compare',
            words: 'Compare who can open what…',
            also: ['difference between audiences'],
            Sign: ArrowLeftRight,
            run: () => setBeside({ kind: 'comparing', id: null }),
          },
        ]
      : []),
    {
      label: 'Engine’s eye',
      words: 'Engine’s eye: what search engines see…',
      also: ['robot', 'index', 'crawl', 'SEO', 'noindex'],
      Sign: Bot,
      run: () => setBeside({ kind: 'engine', id: null }),
    },
    {
      label: 'Colleagues',
      words: 'Colleagues and their roles…',
      also: ['team', 'users', 'editors', 'rights', 'permissions', 'invite', 'staff'],
      Sign: UserRoundPen,
      run: () => setBeside({ kind: 'colleagues', id: null }),
    },
    ...(may('people', null)
      ? [
          {
            label: 'Security',
            words: 'Security: second step and log…',
            also: ['sign-ins', 'audit', 'two-factor', 'passkeys'],
            Sign: ShieldCheck,
            isListedOnly: true,
            run: () => setBeside({ kind: 'security', id: null }),
          },
        ]
      : []),
    ...(may('people', null)
      ? [
          {
            label: 'Visitors',
            words: 'Visitors…',
            also: ['people', 'accounts', 'passwords', 'users', 'sign in', 'directory'],
            Sign: UserRound,
            run: () => setBeside({ kind: 'visitors', id: null }),
          },
        ]
      : []),
  ];
}
