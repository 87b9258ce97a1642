import { createContext, useContext } from 'react';
import type { LabelId } from '#core/model/access.ts';

const Kind = createContext<LabelId | null>(null);

/** Says of an editor that it has the outline of a kind: its places of fields are for each page of the kind, and not for the selected one. */
export const TextOfKind = Kind.Provider;

/** The kind whose outline is edited; null in the text of a page. */
export const useTextOfKind = (): LabelId | null => useContext(Kind);
