export { formatDate, parseDate } from './calendar.ts';
export { parseDecimal, compareDecimals, exactQuotient, formatDecimal, formatMultiple, sumOf, LONGEST_NUMBER, type Decimal } from './decimal.ts';
export {
  ORDERED_KINDS,
  isOrdered,
  lengthInCharacters,
  readValue,
  readBound,
  formatBound,
  sampleValue,
  LONGEST_SAMPLE_TEXT,
  type OrderedKind,
  type OrderedType,
  type ValueType,
  type ValueKind,
  type Reading,
} from './valueType.ts';
export { typedList } from './typedList.ts';
export { isoMoment, meantValue, paddedTime, pointNumber, type WritingHabits } from './writtenValue.ts';
