export { QuestionsChapter } from './QuestionsChapter.tsx';
export { Agenda } from './Agenda.tsx';
export { Observations } from './Observations.tsx';
export { StatusWord, byHeldUp } from './questionWords.tsx';
