import { textsBefore, type CaseContent } from '@caderno/core/cases';
import type { OpenedCase, OpenedPart } from '@caderno/core/shared';
import { AttachedFiles } from '../attachments/index.ts';
import { locale } from '../look/index.ts';
import { ReadText } from './ReadLine.tsx';

/** A text that is to be known before the first step, with values in place. */
export interface ReadableText {
  readonly word: string;
  readonly lines: readonly (readonly OpenedPart[])[];
}

/** What is to be known before the first step, in the instance that is bound. */
export function readableTexts(content: CaseContent, opened: Pick<OpenedCase, 'scope' | 'steps'>): ReadableText[] {
  return textsBefore(content).map(({ word, text }) => ({ word, lines: text.split('\n').map((line) => opened.scope.open(line)) }));
}

export function Before({ content, texts }: { readonly content: CaseContent; readonly texts: readonly ReadableText[] }) {
  return (
    <dl className="mt-3 grid grid-cols-[6.5rem_1fr] gap-y-1 text-sm">
      {texts.map(({ word, lines }) => (
        <div key={word} className="contents">
          <dt className="text-xs leading-6 text-ink2">{word}</dt>
          <dd className="leading-6">
            {lines.map((parts, i) => (
              <p key={i}>
                <ReadText parts={parts} />
              </p>
            ))}
          </dd>
        </div>
      ))}
      {content.kind === 'charter' && content.estimate !== null && (
        <div className="contents">
          <dt className="text-xs leading-6 text-ink2">Time box</dt>
          <dd className="leading-6">{content.estimate.toLocaleString(locale())} minutes</dd>
        </div>
      )}
      {content.attachments.length > 0 && (
        <div className="contents">
          <dt className="text-xs leading-6 text-ink2">Files</dt>
          <dd>
            <AttachedFiles label="Attached files" attachments={content.attachments} picture="max-h-[420px] max-w-full" />
          </dd>
        </div>
      )}
    </dl>
  );
}
