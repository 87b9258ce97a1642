/** The variables that CSS of one's own can use, with what they stand for. `lookVariables` sets them; a test holds the two together. */
export const LOOK_VARIABLES: readonly (readonly [names: readonly string[], says: string])[] = [
  [['--paper', '--raised', '--tint'], 'The grounds: of the part, of what is raised from it, of what is marked'],
  [['--ink', '--quiet'], 'Words, and those that matter less'],
  [['--accent', '--on-accent'], 'Links and the ground of buttons, and the words on them'],
  [['--warn', '--rule'], 'A sign that something is wrong, and a line that only parts'],
  [['--text', '--display'], 'The families of text and of headings'],
  [['--size', '--h1', '--h2', '--h1-weight', '--h2-weight'], 'Sizes of text and headings, and how heavy these are'],
  [
    ['--measure', '--room', '--radius', '--line'],
    'The length of lines, a factor for space, corners, and how thick lines are',
  ],
];
