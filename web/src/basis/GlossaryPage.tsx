import type { Term } from '@caderno/core/basis';
import type { ProjectSettings } from '@caderno/contract';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { useBasisTexts, useSaveSettings, useSettings } from '../api/index.ts';
import { Loading } from '../artefacts/index.ts';
import { TermsFromFile } from '../files/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Empty, FileButton, TextButton, countOf, TextBox, TextArea, Labelled } from '../look/index.ts';
import { useGlossary } from '../text/index.ts';

/** The project's terms, with where they are used; what is written here is shown wherever a term occurs. */
export function GlossaryPage() {
  const { project, canEdit } = useFrame();
  const stored = useSettings(project);
  const [search, setSearch] = useSearchParams();
  const [editing, setEditing] = useState<Term | null>(() => (search.has('term') ? newTerm(search.get('term') ?? '') : null));
  const save = useSaveSettings(project);
  const uses = useUses();
  const [file, setFile] = useState<File | null>(null);
  if (stored.data === undefined) return <Loading error={stored.error} />;
  const { settings, version } = stored.data;
  const put = (glossary: readonly Term[]): void => void save(version, { ...settings, glossary } satisfies ProjectSettings).then((done) => {
    if (!done) return;
    setEditing(null);
    setSearch({}, { replace: true });
  });
  const keep = (term: Term): void => put(settings.glossary.some((t) => t.id === term.id) ? settings.glossary.map((t) => (t.id === term.id ? term : t)) : [...settings.glossary, term]);
  const sorted = [...settings.glossary].sort((a, b) => a.term.localeCompare(b.term));
  return (
    <div className="h-full overflow-y-auto px-8 py-6">
      <div className="mx-auto max-w-4xl">
        <header className="flex items-baseline gap-3">
          <h1 className="font-serif text-2xl font-semibold">Glossary</h1>
          <span className="text-sm text-ink2">{countOf(sorted.length, 'term')}</span>
          <span className="ml-auto" />
          {canEdit && editing === null && (
            <>
              <FileButton label="File of terms" accept=".csv,.tsv,.txt,.xlsx" look="plain" onChoose={setFile}>
                Bring in terms
              </FileButton>
              <Button look="accent" onClick={() => setEditing(newTerm(''))}>
                New term
              </Button>
            </>
          )}
        </header>
        {file !== null && <TermsFromFile file={file} onClose={() => setFile(null)} />}
        {editing !== null && <TermForm key={editing.id} term={editing} onSave={keep} onCancel={() => setEditing(null)} />}
        {sorted.length === 0 && editing === null && <Empty title="No terms yet">A term that is explained here is underlined wherever it occurs, and a term that is not is marked as weak wording.</Empty>}
        <dl className="mt-4">
          {sorted.map((term) => (
            <div key={term.id} className="grid grid-cols-[200px_1fr_auto] gap-x-5 border-b border-rule py-2">
              <dt className="font-semibold">
                {term.term}
                {term.forms.length > 0 && <span className="block text-xs font-normal text-ink2">also {term.forms.join(', ')}</span>}
              </dt>
              <dd className="font-serif text-read">{term.definition}</dd>
              <dd className="flex items-start gap-3 text-xs text-ink2">
                <span className="leading-6">{countOf(uses.get(term.id) ?? 0, 'requirement')}</span>
                {canEdit && (
                  <>
                    <TextButton onClick={() => setEditing(term)} aria-label={`Edit ${term.term}`}>
                      edit
                    </TextButton>
                    <TextButton onClick={() => put(settings.glossary.filter((t) => t.id !== term.id))} aria-label={`Take ${term.term} out`}>
                      take out
                    </TextButton>
                  </>
                )}
              </dd>
            </div>
          ))}
        </dl>
      </div>
    </div>
  );
}

function newTerm(term: string): Term {
  return { id: crypto.randomUUID(), term, forms: [], definition: '' };
}

/** In how many requirements each term occurs. */
function useUses(): ReadonlyMap<string, number> {
  const { project } = useFrame();
  const texts = useBasisTexts(project).data;
  const glossary = useGlossary();
  return useMemo(() => {
    const uses = new Map<string, number>();
    for (const { text } of texts ?? []) for (const id of new Set(glossary.placesIn(text).map((p) => p.term.id))) uses.set(id, (uses.get(id) ?? 0) + 1);
    return uses;
  }, [glossary, texts]);
}

function TermForm({ term, onSave, onCancel }: { readonly term: Term; readonly onSave: (term: Term) => void; readonly onCancel: () => void }) {
  const [draft, setDraft] = useState({ ...term, forms: term.forms.join(', ') });
  return (
    <form
      className="mt-4 grid grid-cols-2 gap-3 rounded-panel border border-rule2 bg-page2 p-4 text-xs text-ink2"
      onSubmit={(event) => {
        event.preventDefault();
        onSave({ ...draft, term: draft.term.trim(), forms: draft.forms.split(',').map((f) => f.trim()).filter(Boolean) });
      }}
    >
      <Labelled label="Term" pale>
        <TextBox autoFocus required maxLength={200} value={draft.term} onChange={(text) => setDraft({ ...draft, term: text })} className="w-full text-sm" />
      </Labelled>
      <Labelled label="Other forms, parted by commas" pale>
        <TextBox value={draft.forms} maxLength={2000} onChange={(text) => setDraft({ ...draft, forms: text })} placeholder="plurals, abbreviations" className="w-full text-sm" />
      </Labelled>
      <Labelled label="What it means" pale className="col-span-2">
        <TextArea rows={2} maxLength={5000} value={draft.definition} onChange={(text) => setDraft({ ...draft, definition: text })} className="w-full font-serif text-read" />
      </Labelled>
      <div className="col-span-2 flex gap-2">
        <Button type="submit" look="accent" disabled={draft.term.trim() === ''}>
          Save the term
        </Button>
        <Button onClick={onCancel}>Cancel</Button>
      </div>
    </form>
  );
}
