import { ArrowLeft, Footprints } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { TreeSheet } from '../../tree/tree-sheet.tsx';
import { Button } from '../../ui/button.tsx';
import { PageAsVisitors } from '../../walk/page-as-visitors.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { TextSection } from './text-section.tsx';
import { WritingHelp } from './writing-help.tsx';

/** A page to write on: the tree keeps to its titles, and beside the text stands the page as visitors get it, followed as it is written. */
export function Desk() {
  const { site, selection, mayEdit, mayPublish, run, setView, setBeside, focusTree } = useWorkbench();
  const text = useRef<HTMLDivElement>(null);
  const node = selection.active === null ? undefined : maybeNodeAt(site, selection.active);
  const page = node?.type === 'page' ? node.id : null;
  const leave = () => {
    setView('sheet');
    window.setTimeout(focusTree, 0);
  };
  useWritingAtOnce(text);
  return (
    <div className="grid min-h-0 flex-1 md:grid-cols-[15rem_minmax(0,1fr)]">
      <div className="flex min-h-0 flex-col border-r border-rule max-md:hidden">
        <TreeSheet />
      </div>
      <div className="flex min-h-0 min-w-0 flex-col">
        <div
          role="toolbar"
          aria-label="The desk"
          className="flex min-h-11 items-center gap-2 border-b border-rule px-3 py-1"
        >
          <Button look="quiet" isTight onClick={leave} title="Leave the desk (D in the tree)">
            <ArrowLeft size={15} aria-hidden /> All columns
          </Button>
          <h2 className="min-w-0 flex-1 truncate font-display text-large font-semibold">
            {node ? textIn(node.title, site.settings.language) : 'The desk'}
          </h2>
          <Button look="quiet" isTight onClick={() => run('walk')} title="Walk through the site as a visitor (W)">
            <Footprints size={15} aria-hidden /> Walk
          </Button>
          {mayPublish && <Button onClick={() => setBeside({ kind: 'going-live', id: null })}>Make live…</Button>}
        </div>
        {page === null ? (
          <p className="p-4 text-quiet">
            {node ? 'Headings and links have no text. Select a page.' : 'Select a page in the tree to write on it.'}
          </p>
        ) : (
          <div className="@container min-h-0 flex-1 overflow-y-auto">
            <div className="grid gap-6 p-4 @3xl:grid-cols-2">
              <div ref={text} className="min-w-0 @3xl:[&_.text-of-page]:min-h-[60vh]!">
                <fieldset disabled={!mayEdit} className="contents">
                  <TextSection key={page} page={page} />
                </fieldset>
                <WritingHelp content={node!.content} />
              </div>
              <div className="min-w-0 @3xl:sticky @3xl:top-4 @3xl:self-start">
                <PageAsVisitors key={page} page={page} className="h-[calc(100vh-16rem)] min-h-80" />
              </div>
            </div>
          </div>
        )}
      </div>
    </div>
  );
}

const LOOK_EVERY_MS = 60;
const TRIES = 30;

/** Whoever comes to the desk writes at once: the text has the keyboard as soon as it is there. */
function useWritingAtOnce(text: React.RefObject<HTMLDivElement | null>): void {
  useEffect(() => {
    let left = TRIES;
    const timer = window.setInterval(() => {
      const editor = text.current?.querySelector<HTMLElement>('.text-of-page');
      if (editor) editor.focus();
      if (editor || --left === 0) window.clearInterval(timer);
    }, LOOK_EVERY_MS);
    return () => window.clearInterval(timer);
  }, [text]);
}
