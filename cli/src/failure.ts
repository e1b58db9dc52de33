/** What a command could not do, in words that can be printed as they are. */
export class Failure extends Error {}
