import { AppWindow, ClipboardList, Images, Inbox, NotebookPen, Repeat2, Replace } from 'lucide-react';
import { useAnswers } from '../../api/answers.ts';
import type { BarAction } from '../../workbench/bar-action.ts';
import { KEYS } from '../../workbench/keys.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** What the Write lens offers: the desk. */
export function useWriteActions(): readonly BarAction[] {
  const { site, view, run, setBeside, mayEdit, maySeeAnswers } = useWorkbench();
  const isAsking = maySeeAnswers && site.settings.forms.length > 0;
  const fresh = useAnswers(isAsking ? site.key : null)?.totals.reduce((sum, one) => sum + one.fresh, 0) ?? 0;
  return [
    {
      label: 'Files',
      words: 'Files…',
      also: ['pictures', 'images', 'documents', 'library', 'upload', 'media', 'film', 'sound'],
      Sign: Images,
      run: () => setBeside({ kind: 'files', id: null }),
    },
    {
      label: 'Shared sections',
      words: 'Shared sections…',
      also: ['reuse', 'repeat', 'same text', 'snippet', 'once'],
      Sign: Repeat2,
      run: () => setBeside({ kind: 'shared', id: null }),
    },
    {
      label: 'Forms',
      words: 'Forms…',
      also: ['contact', 'application', 'survey', 'registration', 'questionnaire'],
      Sign: ClipboardList,
      run: () => setBeside({ kind: 'forms', id: null }),
    },
    ...(maySeeAnswers
      ? [
          {
            label: 'Answers',
            words: 'Answers to forms…',
            also: ['submissions', 'responses', 'inbox', 'messages', 'sent'],
            Sign: Inbox,
            ...(fresh > 0 && { attention: `${fresh} new` }),
            isListedOnly: site.settings.forms.length === 0,
            run: () => setBeside({ kind: 'answers', id: null }),
          },
        ]
      : []),
    {
      label: 'Hosts of outside frames',
      words: 'Hosts of outside frames…',
      also: ['embed', 'iframe', 'player', 'video', 'map', 'allow'],
      Sign: AppWindow,
      isListedOnly: true,
      run: () => setBeside({ kind: 'hosts', id: null }),
    },
    ...(mayEdit
      ? [
          {
            label: 'Replace',
            words: 'Find and replace in all texts…',
            also: ['search', 'substitute', 'rename', 'words'],
            Sign: Replace,
            run: () => setBeside({ kind: 'replacing', id: null }),
          },
        ]
      : []),
    {
      label: 'Desk',
      words: KEYS.desk.words,
      also: ['write', 'editor', 'full page', 'text'],
      keys: KEYS.desk.keys,
      Sign: NotebookPen,
      isOn: view === 'desk',
      isListedOnly: true,
      run: () => run('desk'),
    },
  ];
}
