/** The id of a choice in the page, for the field that names the active one. */
export const choiceId = (list: string, value: string): string => `${list}-${value}`;
