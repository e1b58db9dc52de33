import { ledTo, plainLink, type Kind } from '../artefacts/index.ts';
import { EMPTY_QUESTION, questionMeaning, type QuestionContent } from './question.ts';

export const questionKind: Kind<QuestionContent> = {
  empty: EMPTY_QUESTION,
  meaning: questionMeaning,
  links: ({ about }) => about.map((subject) => plainLink('asks', subject.id)),
  versionsNamed: ({ settledIn }) => settledIn,
  words: ({ text, answer, asked }) => [text, answer, asked],
  withTraceLinks: (content) => content,
  withTargets: (content, targets) => ({
    ...content,
    about: content.about.flatMap((subject) => ledTo(subject, targets)),
    settledIn: content.settledIn.flatMap((settled) => ledTo(settled, targets).map((led) => ({ ...led, version: targets.version(settled.id, settled.version) }))),
  }),
  settled: null,
  withPins: null,
};
