/** What is looked for in a case; each can be switched off in a project. */
export const LOOK_RULES = [
  'noExpectedResult',
  'nothingTold',
  'severalActions',
  'hiddenExpectation',
  'vagueWording',
  'unusedParameter',
  'invalidRowUnrefused',
  'muchLonger',
  'alikeCase',
  'alikeRun',
] as const;
export type LookRule = (typeof LOOK_RULES)[number];
