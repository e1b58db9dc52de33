/** A failure that the person who started us can mend; its message says how. Printed without a stack. */
export class Failure extends Error {}

/** Runs a script's main function and ends the process as the outcome asks. */
export function run(main) {
  main().then(
    (code) => process.exit(code ?? 0),
    (error) => {
      console.error(error instanceof Failure ? error.message : error);
      process.exit(1);
    },
  );
}
