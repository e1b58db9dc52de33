export { OwnFields } from './OwnFields.tsx';
export { OwnInput } from './OwnInput.tsx';
export { FIELD_TYPE_WORD, FIELD_WANTS } from './fieldWords.ts';
