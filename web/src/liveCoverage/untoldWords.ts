import type { Untold } from '@caderno/core/coverage';

/** Why nobody could tell whether an instance passes, and what to do. */
export function untoldWords(why: Untold): string {
  switch (why) {
    case 'noExpectation':
      return 'no expected result belongs to it. Write what is expected in a step, and choose that step.';
    case 'noAction':
      return 'the step that is expected to show it does not say what to do. Write the action.';
    case 'repeatsTitle':
      return 'its expected result only repeats the title. Write what one would see.';
    case 'emptyInRow':
      return 'its expected result is empty with these values. Fill in the outcome.';
  }
}
