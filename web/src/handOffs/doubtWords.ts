import type { Doubt } from '@caderno/core/handOffs';
import { STATE_WORD, countOf } from '../look/index.ts';

/** What is doubtful about a case or scenario, as a remark on its line. */
export function doubtWords(doubt: Doubt): string {
  switch (doubt.kind) {
    case 'tooLarge':
      return 'too large to be opened: it is left out';
    case 'noInstances':
      return 'no row runs: it is left out';
    case 'nothingToDo':
      return 'says nothing to do';
    case 'unbound':
      return `no value for ${doubt.names.map((name) => `<${name}>`).join(', ')}`;
    case 'gone':
      return `uses ${doubt.ids.join(', ')}, which is gone`;
    case 'nothingExpected':
      return 'says nothing that is expected';
    case 'unclear':
      return `unclear words: ${doubt.words.join(', ')}`;
    case 'suspect':
      return `${doubt.ids.join(', ')} changed since it was linked`;
    case 'notAgreed':
      return STATE_WORD[doubt.state].toLowerCase();
    case 'outside':
      return `needs ${doubt.ids.join(', ')}, not handed off with it`;
    case 'noMinutes':
      return 'no minutes';
  }
}

/** How many have a doubt of one kind, on its button. */
export const DOUBT_NAME: Record<Doubt['kind'], (count: number) => string> = {
  tooLarge: (n) => `${n} too large`,
  noInstances: (n) => `${n} without a row that runs`,
  nothingToDo: (n) => `${n} with nothing to do`,
  unbound: (n) => `${n} without a value`,
  gone: (n) => `${n} using what is gone`,
  nothingExpected: (n) => `${n} with nothing expected`,
  unclear: (n) => `${n} with unclear words`,
  suspect: (n) => `${n} suspect`,
  notAgreed: (n) => `${n} not agreed`,
  outside: (n) => `${n} needing others`,
  noMinutes: (n) => `${countOf(n, 'case')} without minutes`,
};
