import { createContext, useContext } from 'react';

/** The fields that others change now, and the way to tell them of one's own. */
export interface FieldsInUse {
  /** Who else changes a field now, by its label. */
  readonly others: ReadonlyMap<string, string>;
  readonly tell: (label: string | null) => void;
}
const NOBODY: FieldsInUse = { others: new Map(), tell: () => undefined };
const InUse = createContext(NOBODY);

/** Marks the fields inside that somebody else is changing. */
export const MarksFieldsInUse = InUse.Provider;
export const useFieldsInUse = (): FieldsInUse => useContext(InUse);
