export { Button, TextButton } from './Button.tsx';
export { Chip } from './Chip.tsx';
export { changeWords, entryWords, manyWords } from './changeWords.ts';
export { Choose } from './Choose.tsx';
export { combinationProblemSentence, constraintProblemSentence, constraintsNamed } from './combinationProblemSentence.ts';
export { Dialog } from './Dialog.tsx';
export { Empty } from './Empty.tsx';
export { FileButton } from './FileButton.tsx';
export { PickAction } from './PickAction.tsx';
export { ReasonForm } from './ReasonForm.tsx';
export { saveFile } from './saveFile.ts';
export { Section } from './Section.tsx';
export { SelectMark } from './SelectMark.tsx';
export { STANDING_WORD, StandingShape } from './StandingShape.tsx';
export { writingHabits } from './writingHabits.ts';
export { THEMES, THEME_WORD, chooseTheme, startTheme, useTheme } from './theme.ts';
export { followPrinting, useMedia, usePrinting } from './useMedia.ts';
export { drawnLines } from './drawnLines.ts';
export { Waiting } from './Waiting.tsx';
export { useLatest } from './useLatest.ts';
export { useSelection, type Selection } from './useSelection.ts';
export { ago, dateAndTime, dayName } from './time.ts';
export {
  BOUNDARY_WORD,
  CASE_KIND_WORD,
  CLASS_WORD,
  EXECUTION_WORD,
  ITEM_KIND_WORD,
  KIND_WORD,
  MODEL_WORD,
  PARAMETER_TYPE_WORD,
  POLARITY_WORD,
  PRIORITY_WORD,
  REQUIREMENT_TYPE_WORD,
  RISK_WORD,
  STATE_LEVEL_WORD,
  STATE_WORD,
  STRENGTH_WORD,
  TECHNIQUE_WORD,
  VALUE_WORD,
  countOf,
  options,
} from './words.ts';
export { CannotBeRead } from './CannotBeRead.tsx';
