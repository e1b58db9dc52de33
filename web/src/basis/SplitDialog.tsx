import type { RequirementId } from '@caderno/core/artefacts';
import { MOST_PARTS, partWithWords, type RequirementContent, type SplitPart } from '@caderno/core/basis';
import type { Split } from '@caderno/contract';
import { useState, type ReactNode } from 'react';
import { toast } from 'sonner';
import { call, tellFailure, useDesign, useSummaries, useRefresh } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Choose, Dialog, TextButton, TextBox, TextArea } from '../look/index.ts';

interface Props {
  readonly id: RequirementId;
  readonly content: RequirementContent;
  readonly onClose: () => void;
}

/** Splitting a requirement: its parts, and who goes along to which; all of it is seen before it is done. */
export function SplitDialog({ id, content, onClose }: Props) {
  const { project } = useFrame();
  const [parts, setParts] = useState<readonly SplitPart[]>(() => firstParts(content));
  const [moved, setMoved] = useState<Readonly<Record<string, number>>>({});
  const design = useDesign(project, { requirement: id }).data;
  const requirements = useSummaries(project, 'requirement').data ?? [];
  const questions = (useSummaries(project, 'question').data ?? []).filter((q) => q.about.includes(id));
  const children = requirements.filter((r) => r.parent === id && r.state !== 'withdrawn');
  const conditions = design?.conditions.filter((c) => c.content.requirements.some((r) => r.id === id)) ?? [];
  const quote = (condition: (typeof conditions)[number]): string => condition.content.requirements.find((r) => r.id === id)?.anchor?.quote ?? '';
  const words = (question: string): string => {
    const subject = design?.questions.find((q) => q.id === question)?.content.about.find((s) => s.id === id);
    return subject?.kind === 'requirement' ? subject.words : '';
  };
  const placeOf = (user: string, hung: string): number => Math.min(moved[user] ?? partWithWords(parts, hung), parts.length - 1);
  const put = (at: number, part: Partial<SplitPart>): void => setParts((all) => all.map((p, i) => (i === at ? { ...p, ...part } : p)));
  const split = useSplit(id, onClose);
  const who = (user: string, title: string, hung: string): ReactNode => (
    <li key={user} className="flex items-center gap-3 border-b border-rule py-1 text-sm">
      <span className="w-12 shrink-0 font-mono text-xs text-ink2">{user}</span>
      <span className="min-w-0 flex-1 truncate">
        {title} {hung !== '' && <span className="text-ink2">on “{hung}”</span>}
      </span>
      <Choose label={`${user} goes to`} value={String(placeOf(user, hung))} options={parts.map((p, i) => ({ value: String(i), name: `${i + 1}. ${p.title.slice(0, 40) || 'part'}` }))} onChange={(value) => setMoved((m) => ({ ...m, [user]: Number(value) }))} />
    </li>
  );
  const go = (): void =>
    split({
      parts: parts.map((p) => ({ title: p.title.trim(), text: p.text })),
      conditions: Object.fromEntries(conditions.map((c) => [c.id, placeOf(c.id, quote(c))])),
      questions: Object.fromEntries(questions.map((q) => [q.id, placeOf(q.id, words(q.id))])),
      children: Object.fromEntries(children.map((c) => [c.id, placeOf(c.id, '')])),
    });
  const ready = parts.length > 1 && parts.every((p) => p.title.trim() !== '') && design !== undefined;
  return (
    <Dialog title={`Split ${id}`} onClose={onClose} wide>
      <p className="text-sm text-ink2">The first part stays {id} with its history; the others become new requirements after it, each with a relation back.</p>
      <ol className="mt-3 space-y-3">
        {parts.map((part, i) => (
          <li key={i} className="grid grid-cols-[24px_1fr_auto] gap-2">
            <span className="pt-1.5 text-sm text-ink2">{i + 1}</span>
            <div>
              <TextBox aria-label={`Title of part ${i + 1}`} value={part.title} maxLength={300} onChange={(text) => put(i, { title: text })} className="w-full font-semibold" />
              <TextArea aria-label={`Text of part ${i + 1}`} rows={2} value={part.text} onChange={(typed) => put(i, { text: typed })} className="mt-1 w-full resize-none font-serif text-read leading-6 [field-sizing:content]" />
            </div>
            {parts.length > 2 ? <TextButton className="text-xs" onClick={() => setParts((all) => all.filter((_, x) => x !== i))}>take out</TextButton> : <span />}
          </li>
        ))}
      </ol>
      {parts.length < MOST_PARTS && (
        <TextButton className="mt-1 text-sm" onClick={() => setParts((all) => [...all, { title: '', text: '' }])}>
          One more part
        </TextButton>
      )}
      {conditions.length + questions.length + children.length > 0 && (
        <section className="mt-4" aria-label="Who goes along">
          <h3 className="text-sm font-semibold">Who goes along</h3>
          <ul>
            {conditions.map((c) => who(c.id, c.content.title, quote(c)))}
            {questions.map((q) => who(q.id, q.title, words(q.id)))}
            {children.map((c) => who(c.id, `${c.title}, below it`, ''))}
          </ul>
        </section>
      )}
      <div className="mt-4 flex gap-2">
        <Button look="accent" disabled={!ready} onClick={go}>
          Split into {parts.length}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </Dialog>
  );
}

/** A paragraph or sentence a part, the shorter of the two lists that has at least two. */
function firstParts({ title, text }: RequirementContent): SplitPart[] {
  const paragraphs = text.trim().split(/\n\s*\n/);
  const pieces = paragraphs.length > 1 ? paragraphs : text.trim().split(/(?<=[.!?])\s+(?=\p{Lu})/u);
  if (pieces.length < 2) return [{ title, text: text.trim() }, { title: '', text: '' }];
  return pieces.slice(0, MOST_PARTS).map((piece, i) => ({ title: i === 0 ? title : titleFrom(piece), text: piece.trim() }));
}

function titleFrom(text: string): string {
  return text.replaceAll(/[*_`#>|]+/g, '').split(/\s+/).slice(0, 6).join(' ').replace(/[.,;:]$/, '');
}

function useSplit(id: RequirementId, onClose: () => void) {
  const { project } = useFrame();
  const refresh = useRefresh(project);
  return (body: Split): void =>
    void call('splitRequirement', { params: { project, id }, body }, { commandId: crypto.randomUUID() }).then(() => {
      toast.success(`${id} is split.`);
      onClose();
      return refresh();
    }, tellFailure);
}
