export { QuestionsChapter } from './QuestionsChapter.tsx';
export { Agenda } from './Agenda.tsx';
