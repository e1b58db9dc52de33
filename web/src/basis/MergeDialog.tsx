import type { RequirementId } from '@caderno/core/artefacts';
import { mergedText, type RequirementContent } from '@caderno/core/basis';
import type { RequirementSummary } from '@caderno/contract';
import { useQueries } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { call, keys, tellFailure, useSummaries, useRefresh } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Dialog, TextButton, countOf, TextBox, TextArea, Labelled } from '../look/index.ts';

interface Props {
  readonly id: RequirementId;
  readonly content: RequirementContent;
  readonly onClose: () => void;
}

/** Merging others into a requirement: the text that comes out, and what comes along; all of it is seen before it is done. */
export function MergeDialog({ id, content, onClose }: Props) {
  const { project } = useFrame();
  const requirements = useSummaries(project, 'requirement').data ?? [];
  const [absorbed, setAbsorbed] = useState<readonly RequirementId[]>([]);
  const contents = useContents(project, absorbed);
  const [title, setTitle] = useState(content.title);
  const [written, setWritten] = useState<string | null>(null);
  const text = written ?? mergedText([content, ...contents]);
  const merge = useMerge(id, onClose);
  const add = (other: RequirementId): void => setAbsorbed((all) => [...all, other]);
  return (
    <Dialog title={`Merge into ${id}`} onClose={onClose} wide>
      <p className="text-sm text-ink2">The others are withdrawn and point to {id}; their conditions, questions and what stands below them come along.</p>
      <ul className="mt-3">
        {absorbed.map((other) => (
          <Absorbed key={other} summary={requirements.find((r) => r.id === other)} onTakeOut={() => setAbsorbed((all) => all.filter((a) => a !== other))} />
        ))}
      </ul>
      <Find requirements={requirements.filter((r) => r.id !== id && !absorbed.includes(r.id) && r.state !== 'withdrawn')} onFound={add} />
      <Labelled label="Title" pale className="mt-4">
        <TextBox value={title} maxLength={300} onChange={setTitle} className="w-full text-sm font-semibold" />
      </Labelled>
      <Labelled label="Text" pale className="mt-2">
        <TextArea rows={5} value={text} onChange={setWritten} className="w-full resize-none font-serif text-read leading-7 [field-sizing:content]" />
      </Labelled>
      <div className="mt-4 flex gap-2">
        <Button look="accent" disabled={absorbed.length === 0 || contents.length < absorbed.length || title.trim() === ''} onClick={() => merge({ absorbed: [...absorbed], title: title.trim(), text })}>
          Merge {countOf(absorbed.length + 1, 'requirement')} into one
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </Dialog>
  );
}

function useContents(project: string, ids: readonly RequirementId[]): RequirementContent[] {
  return useQueries({
    queries: ids.map((id) => ({ queryKey: keys.artefact(project, id), queryFn: () => call('readArtefact', { params: { project, id } }) })),
    combine: (results) => results.flatMap((r) => (r.data?.kind === 'requirement' ? [r.data.content] : [])),
  });
}

function Absorbed({ summary, onTakeOut }: { readonly summary: RequirementSummary | undefined; readonly onTakeOut: () => void }) {
  const { project } = useFrame();
  const conditions = (useSummaries(project, 'condition').data ?? []).filter((c) => summary !== undefined && c.requirements.includes(summary.id));
  const questions = (useSummaries(project, 'question').data ?? []).filter((q) => summary !== undefined && q.about.includes(summary.id));
  if (summary === undefined) return null;
  return (
    <li className="flex items-baseline gap-3 border-b border-rule py-1 text-sm">
      <span className="w-12 font-mono text-xs text-ink2">{summary.id}</span>
      <span className="min-w-0 flex-1 truncate">{summary.title}</span>
      <span className="text-xs text-ink2">
        {countOf(conditions.length, 'condition')}, {countOf(questions.length, 'question')} come along
      </span>
      <TextButton className="text-xs" onClick={onTakeOut}>
        take out
      </TextButton>
    </li>
  );
}

const MOST_FOUND = 6;

function Find({ requirements, onFound }: { readonly requirements: readonly RequirementSummary[]; readonly onFound: (id: RequirementId) => void }) {
  const [words, setWords] = useState('');
  const found = words.trim() === '' ? [] : requirements.filter((r) => words.toLowerCase().split(/\s+/).every((w) => `${r.id} ${r.title}`.toLowerCase().includes(w))).slice(0, MOST_FOUND);
  return (
    <div className="mt-2">
      <TextBox autoFocus aria-label="Requirement to merge in, by id or words" placeholder="Which one? An id, or words of its title" value={words} onChange={setWords} className="w-full" />
      <ul>
        {found.map((r) => (
          <li key={r.id}>
            <button
              type="button"
              className="flex w-full gap-3 px-2 py-1 text-left text-sm hover:bg-blue-wash"
              onClick={() => {
                onFound(r.id);
                setWords('');
              }}
            >
              <span className="w-10 font-mono text-xs leading-5 text-ink2">{r.id}</span>
              {r.title}
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}

function useMerge(id: RequirementId, onClose: () => void) {
  const { project } = useFrame();
  const refresh = useRefresh(project);
  return (body: { absorbed: RequirementId[]; title: string; text: string }): void =>
    void call('mergeRequirements', { params: { project, id }, body }, { commandId: crypto.randomUUID() }).then(() => {
      toast.success(`Merged into ${id}.`);
      onClose();
      return refresh();
    }, tellFailure);
}
