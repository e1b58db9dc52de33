/** How many times slower this machine is now than the one the budgets are meant for; at least 1. */
export function pace(): number;
