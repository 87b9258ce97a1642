/** How what is carried looks beside the pointer. */
export const CARRIED =
  'pointer-events-none fixed top-0 left-0 z-50 w-fit max-w-80 truncate rounded-md border border-accent bg-raised px-2.5 py-1 font-medium shadow-sheet';
