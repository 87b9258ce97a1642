import type { AnyExtension, Editor } from '@tiptap/core';
import { ReactNodeViewRenderer, type ReactNodeViewProps } from '@tiptap/react';
import type { ComponentType } from 'react';
import { BAND_PART } from './band-part.tsx';
import { BUTTON_PART } from './button-part.tsx';
import { COLUMNS_PART } from './columns-part.tsx';
import type { EditorPart } from './editor-part.ts';
import { DOWNLOAD_PART, FILM_PART, SOUND_PART } from './file-parts.tsx';
import { DownloadView, FilmView, GalleryView, PictureView, SoundView } from './file-views.tsx';
import { FORM_PART, FormView } from './form-part.tsx';
import { FRAME_PART, FrameView } from './frame-part.tsx';
import { GALLERY_PART } from './gallery-part.tsx';
import { NOTE_PART } from './note-part.tsx';
import { OWN_HTML_PART, OwnHtmlView } from './own-html-part.tsx';
import { PageFieldsView } from './page-fields-part.tsx';
import { PAGE_LIST_PART, PageListView } from './page-list-part.tsx';
import { PICTURE_PART } from './picture-part.tsx';
import { QUOTATION_PART } from './quotation-part.tsx';
import { SHARED_PART, SharedView } from './shared-part.tsx';
import { TABLE_PART } from './table-part.tsx';

/** The parts of the editor for types of sections; one that has nothing to set needs none. */
export const EDITOR_PARTS: readonly EditorPart[] = [
  NOTE_PART,
  BAND_PART,
  QUOTATION_PART,
  BUTTON_PART,
  COLUMNS_PART,
  TABLE_PART,
  PAGE_LIST_PART,
  PICTURE_PART,
  GALLERY_PART,
  DOWNLOAD_PART,
  FILM_PART,
  SOUND_PART,
  SHARED_PART,
  FORM_PART,
  FRAME_PART,
  OWN_HTML_PART,
];

/** Sections that are drawn by what the library and the tree say of them. */
const VIEWS: Readonly<Record<string, ComponentType<ReactNodeViewProps>>> = {
  pageList: PageListView,
  picture: PictureView,
  gallery: GalleryView,
  download: DownloadView,
  film: FilmView,
  sound: SoundView,
  shared: SharedView,
  form: FormView,
  pageFields: PageFieldsView,
  frame: FrameView,
  ownHtml: OwnHtmlView,
};

/** A fold stands open where it is written: browsers keep the space key of a question for opening it. */
const asElement = (tag: string, type: string) => () => () => {
  const dom = document.createElement(tag);
  dom.dataset.section = type;
  return { dom, contentDOM: dom };
};

/** Enter in a question goes to its answer. */
function goToAnswer(editor: Editor): boolean {
  const { $from } = editor.state.selection;
  return $from.parent.type.name === 'foldQuestion' && editor.commands.setTextSelection($from.after() + 1);
}

/** Whether an event within a section is for a field or button in it, and not for the text. */
const isForItsFields = ({ event }: { event: Event }): boolean =>
  event.target instanceof Element && event.target.closest('button, input, select, textarea, audio, video') !== null;

/** What some sections look like in the editor, where that is not as visitors have it. */
export const inEditor = (extension: AnyExtension): AnyExtension => {
  if (extension.name === 'fold') return extension.extend({ addNodeView: asElement('div', 'fold') });
  if (extension.name === 'foldQuestion')
    return extension.extend({
      addNodeView: asElement('p', 'foldQuestion'),
      addKeyboardShortcuts: () => ({ Enter: ({ editor }: { editor: Editor }) => goToAnswer(editor) }),
    });
  const View = VIEWS[extension.name];
  return View
    ? extension.extend({
        addNodeView: () => ReactNodeViewRenderer(View, { stopEvent: isForItsFields }),
      })
    : extension;
};
