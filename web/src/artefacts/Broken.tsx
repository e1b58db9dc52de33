import type { ArtefactId } from '@caderno/core/artefacts';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { call, tellFailure, useRefresh } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Section, dateAndTime } from '../look/index.ts';

/** An artefact whose newest version cannot be read: why, what is stored, and the versions that can be put back. */
export function Broken({ id }: { readonly id: ArtefactId }) {
  const { project, canEdit } = useFrame();
  const refresh = useRefresh(project);
  const [busy, setBusy] = useState(false);
  const { data: broken } = useQuery({ queryKey: [project, 'broken', id], queryFn: () => call('readBroken', { params: { project, id } }), retry: false });
  useEffect(() => {
    // Lists and coverage were read before anybody knew.
    void refresh();
  }, [project, refresh]);
  if (broken === undefined) return <p className="p-7 text-ink2">Reading …</p>;
  const restore = (version: number): void => {
    setBusy(true);
    call('restoreVersion', { params: { project, id }, body: { version } }, { ifMatch: broken.version, commandId: crypto.randomUUID() })
      .then(() => {
        toast.success(`${id} reads as in v${version} again.`);
        return refresh();
      }, tellFailure)
      .finally(() => setBusy(false));
  };
  return (
    <article className="p-7">
      <p className="font-mono text-xs text-ink2">{id}</p>
      <h2 className="font-serif text-2xl font-semibold">{broken.title}</h2>
      <p role="alert" className="mt-3 rounded-field bg-brick-wash px-4 py-2 text-sm text-brick">
        What is stored as version {broken.version} cannot be read; it is kept as it is, and everything else of the project goes on. {canEdit ? 'Put an earlier version back, or ask whoever looks after the server.' : 'Somebody who may edit can put an earlier version back.'}
      </p>
      <Section title="Versions">
        <ul className="divide-y divide-rule text-sm">
          {broken.versions.map((v) => (
            <li key={v.version} className="flex min-h-9 items-center gap-3">
              <span className="w-10 font-mono text-xs">v{v.version}</span>
              <span className="min-w-0 flex-1 truncate text-ink2">
                {v.author}, {dateAndTime(v.at)}
                {v.note !== '' && ` · ${v.note}`}
              </span>
              {v.readable ? canEdit && <Button disabled={busy} onClick={() => restore(v.version)}>{`Put v${v.version} back`}</Button> : <span className="text-brick">cannot be read</span>}
            </li>
          ))}
        </ul>
      </Section>
      <Section title="Why it cannot be read">
        <ul className="mt-1 list-disc pl-5 text-sm">
          {broken.issues.map(({ path, message }, i) => (
            <li key={i}>
              <span className="font-mono text-xs">{path === '' ? 'as a whole' : path}</span>: {message}
            </li>
          ))}
        </ul>
      </Section>
      <Section title="What is stored" aside={broken.cut ? 'the beginning; the rest is kept' : undefined}>
        <pre tabIndex={0} className="mt-2 max-h-80 overflow-auto whitespace-pre-wrap break-words rounded-field border border-rule bg-page2 p-3 font-mono text-xs">{broken.raw}</pre>
      </Section>
    </article>
  );
}
