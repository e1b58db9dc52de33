import type { Member } from '@caderno/contract';
import { useState } from 'react';
import { useModules } from '../api/index.ts';
import { Button, Dialog } from '../look/index.ts';

interface Props {
  readonly project: string;
  readonly member: Member;
  readonly onSet: (sees: readonly string[] | null) => void;
  readonly onClose: () => void;
}

/** Asks what a reader sees of the project. */
export function SeenModulesDialog({ project, member: { name, sees }, onSet, onClose }: Props) {
  const known = useModules(project);
  const [some, setSome] = useState(sees !== null);
  const [chosen, setChosen] = useState<readonly string[]>(sees ?? []);
  // A module that has been renamed, or has nothing in it any more, is still among what they were given.
  const modules = [...known, ...(sees ?? []).filter((module) => !known.includes(module))];
  const isReady = !some || chosen.length > 0;
  return (
    <Dialog title={`What ${name} sees`} onClose={onClose}>
      <form
        className="text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          if (!isReady) return;
          onSet(some ? chosen : null);
          onClose();
        }}
      >
        <label className="flex min-h-7 items-center gap-2">
          <input type="radio" name="sees" checked={!some} onChange={() => setSome(false)} />
          everything in the project
        </label>
        <label className="flex min-h-7 items-center gap-2">
          <input type="radio" name="sees" checked={some} onChange={() => setSome(true)} />
          only these modules, and what they use
        </label>
        <ul aria-label="Modules" className="ml-6 max-h-56 overflow-y-auto">
          {modules.map((module) => (
            <li key={module}>
              <label className="flex min-h-7 items-center gap-2">
                <input type="checkbox" disabled={!some} checked={chosen.includes(module)} onChange={(event) => setChosen(event.target.checked ? [...chosen, module] : chosen.filter((m) => m !== module))} />
                {module}
                {!known.includes(module) && <span className="text-ink2">nothing is in it now</span>}
              </label>
            </li>
          ))}
        </ul>
        {modules.length === 0 && <p className="ml-6 text-ink2">Nothing in the project stands in a module yet.</p>}
        <p className="mt-2 max-w-[60ch] text-xs text-ink2">
          They read these and nothing else: requirements and cases in them, the conditions of these requirements, questions about nothing else, and the shared steps and data that are used there, wherever those stand. Coverage counts only what they see. They leave no remarks, are asked for no
          agreement, and get no mail about the project.
        </p>
        <div className="mt-4 flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" look="accent" disabled={!isReady}>
            Set
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
