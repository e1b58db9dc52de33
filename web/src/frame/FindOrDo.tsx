import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions, Dialog, DialogBackdrop, DialogPanel } from '@headlessui/react';
import { idInSource } from '@caderno/core/basis';
import type { Summary } from '@caderno/contract';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../api/index.ts';
import { KIND_NAME } from '../look/index.ts';
import { address } from './address.ts';
import { useAllCommands, type Command } from './commands.ts';

type Choice = { readonly kind: 'artefact'; readonly summary: Summary } | { readonly kind: 'command'; readonly command: Command };

interface Props {
  readonly project: string;
  /** What was typed before the field was there. */
  readonly first?: string;
  readonly onClose: () => void;
}

/** One field for everything that can be found and every command of the page. */
export function FindOrDo({ project, first = '', onClose }: Props) {
  const [text, setText] = useState(first);
  // Not deferred: Enter takes what the list shows, and must never take what it showed a moment ago.
  const words = text.trim();
  const navigate = useNavigate();
  const commands = useAllCommands().filter((c) => matches(c.title, words));
  const found = useQuery({
    queryKey: [project, 'list', 'find', words],
    queryFn: ({ signal }) => call('find', { params: { project }, query: { words } }, { signal }),
    enabled: words !== '',
  });
  const choose = (choice: Choice | null): void => {
    if (choice === null) return;
    onClose();
    if (choice.kind === 'command') choice.command.run();
    else void navigate(address.artefact(project, choice.summary.id));
  };
  const artefacts = words === '' ? [] : (found.data ?? []);
  return (
    <Dialog open onClose={onClose} className="relative z-50">
      <DialogBackdrop className="fixed inset-0 bg-ink/20" />
      <div className="fixed inset-0 flex items-start justify-center pt-[7vh]">
        <DialogPanel className="w-full max-w-2xl overflow-hidden rounded-[8px] border border-rule2 bg-page">
          <Combobox<Choice | null> value={null} onChange={choose}>
            <ComboboxInput
              autoFocus
              aria-label="Find or do anything"
              placeholder="An id, words of a title or a step, or a command"
              autoComplete="off"
              displayValue={() => first}
              onChange={(event) => setText(event.target.value)}
              // At once, whatever its list does: that would empty the field first and go on showing what was found.
              onKeyDown={(event) => event.key === 'Escape' && onClose()}
              className="w-full border-b border-rule bg-transparent px-5 py-4 text-lg focus:outline-none"
            />
            <ComboboxOptions static className="max-h-[58vh] overflow-y-auto py-2">
              {artefacts.map((summary) => (
                <Line key={summary.id} choice={{ kind: 'artefact', summary }}>
                  <span className="w-14 shrink-0 font-mono text-xs text-ink2">{summary.id}</span>
                  <span className="truncate">{summary.title}</span>
                  {summary.kind === 'requirement' && idInSource(summary.sourceId) !== '' && <span className="shrink-0 font-mono text-xs text-ink2">{summary.sourceId}</span>}
                  <span className="ml-auto shrink-0 text-xs text-ink2">{[KIND_NAME[summary.kind][0], summary.module].filter(Boolean).join(' · ')}</span>
                </Line>
              ))}
              {commands.map((command) => (
                <Line key={command.id} choice={{ kind: 'command', command }}>
                  <span className="w-14 shrink-0 text-xs text-blue">do</span>
                  <span className="truncate">{command.title}</span>
                  {command.keyLabel !== undefined && <kbd className="ml-auto shrink-0 font-mono text-xs text-ink2">{command.keyLabel}</kbd>}
                </Line>
              ))}
              {artefacts.length === 0 && commands.length === 0 && !found.isFetching && (
                <p className="px-5 py-3 text-ink2">Nothing has these words, and no command here is called that.</p>
              )}
            </ComboboxOptions>
          </Combobox>
        </DialogPanel>
      </div>
    </Dialog>
  );
}

function Line({ choice, children }: { readonly choice: Choice; readonly children: React.ReactNode }) {
  return (
    <ComboboxOption value={choice} className="flex cursor-pointer items-center gap-3 px-5 py-2 data-focus:bg-blue-wash">
      {children}
    </ComboboxOption>
  );
}

function matches(title: string, words: string): boolean {
  const lower = title.toLowerCase();
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => lower.includes(word));
}
