/** Words with a capital to begin with, as a title. */
export const capitalised = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
