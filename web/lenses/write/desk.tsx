import type { ScreenWidth } from '#core/drawing/screen-widths.ts';
import { ArrowLeft, Footprints } from 'lucide-react';
import { type ReactNode, createContext, useContext, useEffect, useMemo, useRef, useState } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { TreeSheet } from '../../tree/tree-sheet.tsx';
import { Button } from '../../ui/button.tsx';
import { WidthChoice } from '../../walk/width-choice.tsx';
import { PermittedFields } from '../../workbench/allowing.tsx';
import { useGoingLive } from '../../workbench/use-workbench-actions.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { PageFrame } from './page-frame.tsx';
import { TextSection } from './text-section.tsx';
import { WritingHelp } from './writing-help.tsx';

interface OnTheDesk {
  readonly page: PageId;
  readonly width: ScreenWidth;
}
const Shown = createContext<OnTheDesk | null>(null);

/** The page on the desk, around its text. */
function ThePage({ children }: { readonly children: ReactNode }) {
  const { page, width } = useContext(Shown)!;
  return (
    <div className="px-4">
      <PageFrame page={page} width={width}>
        {children}
      </PageFrame>
    </div>
  );
}

/** A page to write on, in its own layout and look: the tree keeps to its titles, and the rest is the page. */
export function Desk() {
  const { site, selection, run, setView, focusTree } = useWorkbench();
  const live = useGoingLive();
  const text = useRef<HTMLDivElement>(null);
  const node = selection.active === null ? undefined : maybeNodeAt(site, selection.active);
  const page = node?.type === 'page' ? node.id : null;
  const [width, setWidth] = useState<ScreenWidth>('desktop');
  const shown = useMemo(() => page && { page, width }, [page, width]);
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
          <WidthChoice label="Width of the page" width={width} onChoose={setWidth} className="flex max-sm:hidden" />
          <Button look="quiet" isTight onClick={() => run('walk')} title="Walk through the site as a visitor (W)">
            <Footprints size={15} aria-hidden /> Walk
          </Button>
          {live && <Button onClick={live.run}>{live.label}</Button>}
        </div>
        {shown === null ? (
          <p className="p-4 text-quiet">
            {node ? 'Headings and links have no text. Select a page.' : 'Select a page in the tree to write on it.'}
          </p>
        ) : (
          <div ref={text} className="min-h-0 flex-1 scroll-pt-40 overflow-y-auto bg-sunken">
            <Shown value={shown}>
              <PermittedFields permission="write" page={shown.page}>
                <TextSection key={shown.page} page={shown.page} Around={ThePage} />
              </PermittedFields>
            </Shown>
            <div className="px-4 pb-6">
              <WritingHelp content={node!.content} />
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
      if (editor) editor.focus({ preventScroll: true });
      if (editor || --left === 0) window.clearInterval(timer);
    }, LOOK_EVERY_MS);
    return () => window.clearInterval(timer);
  }, [text]);
}
