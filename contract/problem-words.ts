/** Values that a problem's sentence is made with. `title` and the like are filled in where the site is known. */
export type ProblemParams = Readonly<Record<string, string | number>>;

/** How a problem is told: its status, what it is, and the sentence that says it. */
export interface ProblemWords {
  readonly status: number;
  readonly title: string;
  /** What is wrong, where, and the way out. */
  readonly detail: (params: ProblemParams) => string;
}

/** The page that a problem is about, by its title where it is known. */
export const page = (params: ProblemParams): string =>
  params.pageTitle === undefined ? `page '${params.page}'` : `‘${params.pageTitle}’`;

/** A text with a capital letter in front. */
export function sentence(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
