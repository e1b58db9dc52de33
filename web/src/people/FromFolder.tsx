import { newProjectSchema } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { RefusedCall, call, failureSentence, keys } from '../api/index.ts';
import { address } from '../frame/index.ts';
import { Busy, Button, FileButton } from '../look/index.ts';

type Standing = { readonly kind: 'asks' } | { readonly kind: 'making' } | { readonly kind: 'failed'; readonly words: string } | { readonly kind: 'changed'; readonly words: string; readonly file: File };

/** Makes the project of a baseline that was saved as files, with its ids, versions and states. */
export function FromFolder({ name, projectKey }: { readonly name: string; readonly projectKey: string }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [standing, setStanding] = useState<Standing>({ kind: 'asks' });
  const named = newProjectSchema.safeParse({ name, key: projectKey });
  const make = async (file: File, changed: 'yes' | 'no'): Promise<void> => {
    if (!named.success) return setStanding({ kind: 'failed', words: 'First say above what the project is called.' });
    setStanding({ kind: 'making' });
    try {
      const project = await call('createProjectFromFolder', { query: { ...named.data, changed }, body: new Uint8Array(await file.arrayBuffer()) });
      await client.invalidateQueries({ queryKey: keys.session });
      await navigate(address.coverage(project.key));
    } catch (error) {
      const isChanged = error instanceof RefusedCall && error.refusal.code === 'folder_changed';
      setStanding(isChanged ? { kind: 'changed', words: failureSentence(error), file } : { kind: 'failed', words: failureSentence(error) });
    }
  };
  return (
    <section className="mt-7 border-t border-rule pt-4" aria-label="From a saved baseline">
      <h2 className="font-serif text-lg font-semibold">Or from a saved baseline</h2>
      <p className="mt-1 text-sm text-ink2">The zip that a baseline is saved as becomes this project: the same ids, versions, states and files. Passwords and secret values are not in it.</p>
      <div className="mt-3 flex items-center gap-3">
        <FileButton label="A saved baseline" accept=".zip,application/zip" look="plain" onChoose={(file) => void make(file, 'no')}>
          Choose the zip
        </FileButton>
        {standing.kind === 'making' && <Busy>Making the project …</Busy>}
      </div>
      {standing.kind === 'failed' && (
        <p role="alert" className="mt-2 text-sm text-brick">
          {standing.words}
        </p>
      )}
      {standing.kind === 'changed' && (
        <div role="alert" className="mt-3 rounded-field bg-ochre-wash px-4 py-3 text-sm text-ochre-ink">
          <p>{standing.words}</p>
          <Button className="mt-2" onClick={() => void make(standing.file, 'yes')}>
            Make the project of them as they are
          </Button>
        </div>
      )}
    </section>
  );
}
