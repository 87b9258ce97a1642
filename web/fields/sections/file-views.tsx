import { type ReactNodeViewProps, NodeViewContent, NodeViewWrapper } from '@tiptap/react';
import type { MouseEvent, ReactNode } from 'react';
import type { FileKind } from '#core/files/file.ts';
import type { GalleryPictures } from '#core/sections/gallery.ts';
import type { PictureSetting } from '#core/sections/picture.ts';
import { type LibraryFile, fileAddress } from '#contract/files.ts';
import { useLibrary } from '../../api/files.ts';
import { ChooseFile } from '../../files/choose-file.tsx';
import { factsOf } from '../../files/file-words.ts';
import { Media } from '../../files/media.tsx';
import { Thumbnail } from '../../files/thumbnail.tsx';
import { OF_THE_DESK } from '../page-look.ts';
import { isOnItsWay } from './insert-files.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** The file of a section, or that its place is empty, or that the library has it no more; undefined until it is known. */
function useShownFile(id: string | null): LibraryFile | null | undefined {
  const { site } = useWorkbench();
  const library = useLibrary(site.key);
  return id === null ? null : library && (library.find((one) => one.id === id) ?? null);
}

interface ViewProps extends ReactNodeViewProps {
  readonly kind: FileKind;
  readonly as?: 'figure' | 'div';
  readonly className?: string;
  readonly show: (file: LibraryFile) => ReactNode;
}

/** A section that shows one file: where it has none yet, the way to one. */
function FileView({ kind, as = 'figure', className = '', show, ...view }: ViewProps) {
  const { site } = useWorkbench();
  const id = (view.node.attrs as { readonly file: string | null }).file;
  const file = useShownFile(id);
  const hasCaption = view.node.type.spec.content === 'inline*';
  return (
    <NodeViewWrapper
      as={as}
      className={`${className} ${view.selected ? 'rounded-md outline-2 outline-offset-2 outline-accent' : ''}`}
    >
      {/* A click on what is shown selects the section: the keyboard gets there by the arrow keys. */}
      {/* eslint-disable-next-line jsx-a11y/no-static-element-interactions */}
      <div contentEditable={false} onMouseDown={(event) => selectWhole(event, view)}>
        {isOnItsWay(id) ? (
          <p role="status" className="rounded-md bg-sunken px-3 py-6 text-center text-quiet">
            Sending it to the library …
          </p>
        ) : file === undefined ? null : file === null ? (
          <EmptyPlace isEmpty={id === null} view={view}>
            <ChooseFile
              site={site.key}
              kind={kind}
              onChosen={([chosen]) => setAndWriteOn(view, { file: chosen!.id })}
            />
          </EmptyPlace>
        ) : (
          show(file)
        )}
      </div>
      {hasCaption && (
        <NodeViewContent<'figcaption'>
          as="figcaption"
          data-placeholder={view.node.content.size === 0 ? 'Caption' : undefined}
          className="caption"
        />
      )}
    </NodeViewWrapper>
  );
}

/** Selects a section as a whole; fields and buttons in it, and what plays, keep their clicks. */
function selectWhole(event: MouseEvent, { editor, getPos }: ReactNodeViewProps): void {
  const at = getPos();
  const isUsed = event.target instanceof Element && event.target.closest('button, input, audio, video') !== null;
  if (isUsed || at === undefined || !editor.isEditable) return;
  event.preventDefault();
  editor.chain().focus().setNodeSelection(at).run();
}

/** Sets what was chosen; the writing goes on behind the section. */
function setAndWriteOn({ editor, getPos, node, updateAttributes }: ReactNodeViewProps, set: object): void {
  updateAttributes(set);
  const at = getPos();
  if (at === undefined) return;
  window.setTimeout(() => {
    // In its caption, where it has one.
    if (node.type.spec.content === 'inline*')
      editor
        .chain()
        .focus(at + 1)
        .run();
    else editor.chain().focus().setNodeSelection(at).run();
  }, 0);
}

/** Where a file is to stand: whoever has just put the section in chooses at once, by the keyboard too. */
function EmptyPlace({
  isEmpty,
  view,
  children,
}: {
  readonly isEmpty: boolean;
  readonly view: ReactNodeViewProps;
  readonly children: ReactNode;
}) {
  const { editor, getPos } = view;
  if (!editor.isEditable) return null;
  return (
    // Keys are for what stands in here, not for the text around it.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <div
      role="group"
      aria-label="Choose a file"
      className={OF_THE_DESK}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return event.stopPropagation();
        event.preventDefault();
        event.stopPropagation();
        const at = getPos();
        if (at !== undefined) editor.chain().focus().setNodeSelection(at).run();
      }}
    >
      {!isEmpty && (
        <p className="text-small text-attention">The file that stood here is not in the library any more.</p>
      )}
      {children}
    </div>
  );
}

export function PictureView(view: ReactNodeViewProps) {
  const { site } = useWorkbench();
  const { place, alternative, credit } = view.node.attrs as PictureSetting;
  return (
    <FileView
      {...view}
      kind="picture"
      className={`picture is-${place}`}
      show={(file) => (
        <>
          <img
            src={fileAddress(site.key, file, place === 'left' || place === 'right' ? 640 : 1024)}
            alt={alternative ?? file.alternative}
            width={file.width ?? undefined}
            height={file.height ?? undefined}
          />
          {credit !== '' && <small className="credit">{credit}</small>}
        </>
      )}
    />
  );
}

export function DownloadView(view: ReactNodeViewProps) {
  const { site } = useWorkbench();
  const { words } = view.node.attrs as { readonly words: string };
  return (
    <FileView
      {...view}
      kind="document"
      as="div"
      className="download"
      show={(file) => (
        <>
          <a href={fileAddress(site.key, file)} onClick={(event) => event.preventDefault()}>
            {words || file.name}
          </a>{' '}
          <small>{factsOf({ ...file, width: null })}</small>
        </>
      )}
    />
  );
}

export function FilmView(view: ReactNodeViewProps) {
  const { site } = useWorkbench();
  return <FileView {...view} kind="film" className="film" show={(file) => <Media site={site.key} file={file} />} />;
}

export function SoundView(view: ReactNodeViewProps) {
  const { site } = useWorkbench();
  return <FileView {...view} kind="sound" className="sound" show={(file) => <Media site={site.key} file={file} />} />;
}

export function GalleryView(view: ReactNodeViewProps) {
  const { site } = useWorkbench();
  const library = useLibrary(site.key);
  const { pictures } = view.node.attrs as { readonly pictures: GalleryPictures };
  const there = pictures.flatMap(({ file }) => library?.find((one) => one.id === file) ?? []);
  return (
    <NodeViewWrapper
      aria-label="Gallery"
      className={`gallery ${view.selected ? 'rounded-md outline-2 outline-offset-2 outline-accent' : ''}`}
    >
      {pictures.length === 0 ? (
        <EmptyPlace isEmpty view={view}>
          <ChooseFile
            site={site.key}
            kind="picture"
            isOne={false}
            onChosen={(files) => setAndWriteOn(view, { pictures: files.map(({ id }) => ({ file: id, caption: '' })) })}
          />
        </EmptyPlace>
      ) : (
        <ul className="grid list-none! grid-cols-[repeat(auto-fill,minmax(7rem,1fr))] gap-2 pl-0!">
          {there.map((file, at) => (
            <li key={`${file.id}-${at}`}>
              <Thumbnail site={site.key} file={file} className="aspect-4/3 w-full" />
            </li>
          ))}
        </ul>
      )}
    </NodeViewWrapper>
  );
}
