import { useEffect, useEffectEvent } from 'react';
import { pages } from '../tree/words.ts';
import { isTyping } from '../workbench/keys.ts';
import type { Workbench } from '../workbench/workbench-context.tsx';
import { type Clip, keepClip, keptClip, makeClip } from './clip.ts';
import { toast } from '../ui/toast.ts';

/** What was pasted: pages of a site, or a list of titles from anywhere. */
export type Pasted = { readonly kind: 'pages'; readonly clip: Clip } | { readonly kind: 'list'; readonly text: string };

/** Copies, cuts and pastes pages by the browser's own clipboard, so that other programs take part. */
export function useClipboard(
  { dialog, chosen, site, mayEdit }: Pick<Workbench, 'dialog' | 'chosen' | 'site' | 'mayEdit'>,
  setClip: (clip: Clip | null) => void,
  onPaste: (pasted: Pasted) => void,
): void {
  const take = useEffectEvent((event: ClipboardEvent, kind: Clip['kind']) => {
    if (dialog !== null || isTyping(event.target) || chosen.length === 0) return;
    // Text that somebody has marked is what they want to copy.
    if (document.getSelection()?.isCollapsed === false) return;
    if (kind === 'cut' && !mayEdit) return;
    const clip = makeClip(site, chosen, kind);
    event.preventDefault();
    event.clipboardData?.setData('text/plain', clip.text);
    keepClip(clip);
    setClip(clip);
    toast(
      kind === 'copy'
        ? `Copied ${pages(clip.pages.length)}, with what is below. Paste here, in another site, or as a list anywhere.`
        : `Cut ${pages(clip.pages.length)}. ${clip.pages.length === 1 ? 'It stays' : 'They stay'} until you paste; press Escape to cancel.`,
      { duration: 3500 },
    );
  });
  const paste = useEffectEvent((event: ClipboardEvent) => {
    if (dialog !== null || isTyping(event.target) || !mayEdit) return;
    event.preventDefault();
    const text = event.clipboardData?.getData('text/plain') ?? '';
    const clip = keptClip();
    if (clip && (text === '' || text.replace(/\r\n/g, '\n') === clip.text)) onPaste({ kind: 'pages', clip });
    else if (text.trim() !== '') onPaste({ kind: 'list', text });
    else toast('The clipboard holds no text and no pages.');
  });
  useEffect(() => {
    const copy = (event: ClipboardEvent) => take(event, 'copy');
    const cut = (event: ClipboardEvent) => take(event, 'cut');
    const onPasteEvent = (event: ClipboardEvent) => paste(event);
    document.addEventListener('copy', copy);
    document.addEventListener('cut', cut);
    document.addEventListener('paste', onPasteEvent);
    return () => {
      document.removeEventListener('copy', copy);
      document.removeEventListener('cut', cut);
      document.removeEventListener('paste', onPasteEvent);
    };
  }, []);
}
