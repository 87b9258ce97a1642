import { SCREEN_WIDTHS, type ScreenWidth } from '#core/drawing/screen-widths.ts';
import { type ReactNode, useEffect, useRef } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { lookVariables } from '#core/look/style.ts';
import { useLookParts, usePageFrame } from '../../api/frames.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { LookFaces } from '../../fields/look-faces.tsx';
import { frameLook, textLook } from '../../fields/page-look.ts';
import { useShownLook } from '../../fields/shown-look.ts';

/**
 * A page in its layout and look, as wide as the screens that visitors have, with something of the workbench in the place of its text.
 * What stands around the text is in a shadow tree: its styles are its own, and nothing in it can be used.
 */
export function PageFrame({
  page,
  width,
  children,
}: {
  readonly page: PageId;
  readonly width: ScreenWidth;
  readonly children: ReactNode;
}) {
  const { site, shown } = useWorkbench();
  const host = useRef<HTMLDivElement>(null);
  const parts = useLookParts();
  const look = useShownLook();
  const css = parts && `${lookVariables(look)}\n${parts.css}`;
  const html = usePageFrame(site.key, page, shown.isSaving ? null : shown.revision);
  const isKnown = css !== undefined;
  useEffect(() => {
    if (!host.current) return;
    const root = host.current.shadowRoot ?? host.current.attachShadow({ mode: 'open' });
    if (html === undefined || !isKnown) {
      // Until it is known what stands around the text, the text stands alone.
      if (root.childElementCount === 0) root.innerHTML = '<slot></slot>';
      return;
    }
    const body = document.createElement('div');
    body.className = 'page';
    // The workbench has its own main part: that of the page is none beside it.
    body.innerHTML = html.replace(/<main\b[^>]*>/, '<div class="main">').replace('</main>', '</div>');
    letBe(body);
    root.replaceChildren(document.createElement('style'), body);
  }, [html, isKnown]);
  // A look that is tried changes the style alone.
  useEffect(() => {
    const style = host.current?.shadowRoot?.querySelector('style');
    if (style && css !== undefined) style.textContent = frameLook(css);
  }, [html, css]);
  return (
    <>
      <LookFaces pair={look.pair} />
      {css !== undefined && <style>{textLook(css)}</style>}
      <div
        ref={host}
        data-page-frame
        style={{ maxWidth: width === 'desktop' ? undefined : SCREEN_WIDTHS[width] }}
        // The border stands around the width.
        className="mx-auto box-content overflow-clip rounded-md border border-edge bg-paper"
      >
        {children}
      </div>
    </>
  );
}

/** Takes all but the text out of reach of pointer, keyboard and readers: it is not here to be used. */
function letBe(element: Element): void {
  for (const child of element.children)
    if (child.localName === 'slot') continue;
    else if (child.querySelector('slot')) letBe(child);
    else child.setAttribute('inert', '');
}
