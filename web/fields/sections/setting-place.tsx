import type { ReactNodeViewProps } from '@tiptap/react';
import { NodeViewWrapper } from '@tiptap/react';
import type { ReactNode } from 'react';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/field.tsx';
import { OF_THE_DESK } from '../page-look.ts';

interface Named<Id extends string> {
  readonly id: Id;
  readonly name: string;
}

/** Which of the site's settings stands in a place of a text. */
export function WhichOne<Id extends string>({
  label,
  value,
  all,
  isFirstChoice = false,
  onChoose,
}: {
  readonly label: string;
  /** Empty where none was chosen yet. */
  readonly value: Id | '';
  readonly all: readonly Named<Id>[];
  /** Whether the keyboard goes there when the section is inserted. */
  readonly isFirstChoice?: boolean;
  readonly onChoose: (id: Id) => void;
}) {
  return (
    <Choice
      label={label}
      value={value}
      {...(isFirstChoice && { 'data-first-choice': '' })}
      onChange={(event) => onChoose(event.target.value as Id)}
    >
      {value === '' && <option value="">Choose one</option>}
      {all.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </Choice>
  );
}

/** A place in a text for one of the site's settings, before one was chosen: which one, or a new one. */
export function ChooseOne<Id extends string>({
  label,
  all,
  newOne,
  onChoose,
  onMake,
}: {
  readonly label: string;
  readonly all: readonly Named<Id>[];
  /** What the button says that makes a new one. */
  readonly newOne: string;
  readonly onChoose: (id: Id) => void;
  readonly onMake: () => void;
}) {
  return (
    <div className={`${OF_THE_DESK} flex flex-wrap items-end gap-2 py-1`}>
      {all.length > 0 && <WhichOne label={label} value="" all={all} isFirstChoice onChoose={onChoose} />}
      <Button onClick={onMake} {...(all.length === 0 && { 'data-first-choice': '' })}>
        {newOne}
      </Button>
    </div>
  );
}

/** A section that shows one of the site's settings, below what it is called. */
export function SettingPlace({
  words,
  says = words,
  isMissing,
  selected,
  editor,
  getPos,
  children,
}: Pick<ReactNodeViewProps, 'selected' | 'editor' | 'getPos'> & {
  readonly words: string;
  /** What stands above it, where that is not what it is called. */
  readonly says?: string;
  /** Whether visitors see nothing there. */
  readonly isMissing: boolean;
  readonly children: ReactNode;
}) {
  return (
    <NodeViewWrapper aria-label={words} className={`border-l-2 pl-3 ${selected ? 'border-accent' : 'border-edge'}`}>
      {/* A click on it selects it as a whole: the keyboard gets there by the arrow keys. */}
      {/* eslint-disable-next-line jsx-a11y/no-static-element-interactions */}
      <div
        contentEditable={false}
        onMouseDown={(event) => {
          const at = getPos();
          const isUsed = event.target instanceof Element && event.target.closest('button, input, select') !== null;
          if (isUsed || at === undefined || !editor.isEditable) return;
          event.preventDefault();
          editor.chain().focus().setNodeSelection(at).run();
        }}
      >
        <p className={`${OF_THE_DESK} text-small ${isMissing ? 'text-attention' : 'text-quiet'}`}>{says}</p>
        {children}
      </div>
    </NodeViewWrapper>
  );
}
