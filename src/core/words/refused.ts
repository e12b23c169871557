/** What could not be done: what happened, why, and what is safe. */

/** "Couldn’t import Day.json. It’s cut off. Nothing was changed." The reason is one or more whole sentences. */
export const refusedWords = (what: string, reason: string): string =>
  `Couldn’t ${what}. ${reason}${/[.!?]$/.test(reason) ? '' : '.'} Nothing was changed.`;
