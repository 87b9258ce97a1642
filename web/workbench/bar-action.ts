import type { LucideIcon } from 'lucide-react';

/**
 * Something to do that a bar offers. The bar, the menu that takes its place on small screens and the list of commands are all made of
 * these, so that none of them lacks what another has.
 */
export interface BarAction {
  /** On the bar, where little room is. */
  readonly label: string;
  /** How many there are, behind the label. */
  readonly count?: number;
  /** What waits, behind the label. */
  readonly attention?: string;
  /** In the list of commands, where it stands among all others. */
  readonly words: string;
  /** Other words under which somebody may look for it. */
  readonly also?: readonly string[];
  readonly keys?: string;
  readonly Sign: LucideIcon;
  /** What the bar shows of it, where not both. */
  readonly shows?: 'sign' | 'label';
  /** Of several of which one is on, or of one that is on or off: whether it is on. */
  readonly isOn?: boolean;
  readonly isOff?: boolean;
  /** The menu of the bar that it stands in. */
  readonly group?: string;
  /** Whether it is in the list of commands alone: its button stands where it is needed. */
  readonly isListedOnly?: boolean;
  readonly run: () => void;
}
