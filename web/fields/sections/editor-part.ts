import type { Editor } from '@tiptap/core';
import type { ComponentType } from 'react';

export type Attributes = Readonly<Record<string, unknown>>;

export interface SettingsProps<Set extends Attributes = Attributes> {
  readonly editor: Editor;
  readonly attributes: Set;
  readonly set: (attributes: Partial<Set>) => void;
}

/** What the editor knows of a type of section besides its rendering: what is set of the one that the writing is in. */
export interface EditorPart {
  readonly type: string;
  readonly Settings: ComponentType<SettingsProps>;
}

/** The part for a type of section. The attributes are those of its schema: the editor makes no others. */
export const editorPart = <Set extends Attributes>(
  type: string,
  Settings: ComponentType<SettingsProps<Set>>,
): EditorPart => ({ type, Settings: Settings as ComponentType<never> as ComponentType<SettingsProps> });
