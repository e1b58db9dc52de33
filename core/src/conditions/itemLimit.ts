/** How many coverage items one condition may have, unless the project says otherwise. */
export const DEFAULT_MOST_ITEMS = 20_000;
