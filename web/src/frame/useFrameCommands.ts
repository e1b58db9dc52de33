import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import { address } from './address.ts';
import { CHAPTERS } from './chapters.ts';
import { useCommands, type Command } from './commands.ts';
import { useSeeAgreed } from './useSeeAgreed.ts';

/** What one can do from any page of a project: go anywhere in it, and bring something into it. */
export function useFrameCommands({ project, canEdit }: { readonly project: string; readonly canEdit: boolean }, setOpen: (open: 'find' | 'keys') => void): void {
  const navigate = useNavigate();
  const seeAgreed = useSeeAgreed(project);
  const commands = useMemo<Command[]>(
    () => [
      { id: 'find', title: 'Find or do anything', keys: '$mod+k', keyLabel: 'Ctrl K', whileTyping: true, run: () => setOpen('find') },
      { id: 'keys', title: 'Help for this page, and its keys', keys: ['Shift+?', '?'], keyLabel: '?', run: () => setOpen('keys') },
      ...CHAPTERS.map((c) => ({ id: `go-${c.path}`, title: `Go to ${c.name}`, keys: `g ${c.letter}`, keyLabel: `g ${c.letter}`, run: () => void navigate(`/${project}/${c.path}`) })),
      { id: 'go-journal', title: 'Go to the journal', keys: 'g j', keyLabel: 'g j', run: () => void navigate(address.journal(project)) },
      { id: 'go-questions', title: 'Go to the questions', keys: 'g q', keyLabel: 'g q', run: () => void navigate(address.questions(project)) },
      { id: 'go-counts', title: 'Go to the counts', run: () => void navigate(address.counts(project)) },
      { id: 'go-specification', title: 'Go to the specification, to print it', run: () => void navigate(address.specification(project)) },
      { id: 'go-report', title: 'Go to the report', run: () => void navigate(address.report(project)) },
      { id: 'go-trend', title: 'Go to coverage over time', run: () => void navigate(address.trend(project)) },
      { id: 'go-matrix', title: 'Go to the matrix', run: () => void navigate(address.matrix(project)) },
      { id: 'go-hand-offs', title: 'Go to the hand-offs', run: () => void navigate(address.handOffs(project)) },
      { id: 'go-list', title: 'Go to all cases as a table', keys: 'g l', keyLabel: 'g l', run: () => void navigate(address.list(project, 'case')) },
      { id: 'go-replace', title: 'Search and replace in texts', run: () => void navigate(address.replacing(project)) },
      { id: 'go-remarks', title: 'Go to the open remarks', keys: 'g m', keyLabel: 'g m', run: () => void navigate(address.remarks(project)) },
      { id: 'go-inbox', title: 'Go to your inbox', keys: 'g i', keyLabel: 'g i', run: () => void navigate(address.inbox(project)) },
      { id: 'go-reviews', title: 'Go to the reviews', keys: 'g r', keyLabel: 'g r', run: () => void navigate(address.reviews(project)) },
      { id: 'go-suspect', title: 'Go to the suspect links', keys: 'g x', keyLabel: 'g x', run: () => void navigate(address.suspect(project)) },
      { id: 'go-glossary', title: 'Go to the glossary', keys: 'g o', keyLabel: 'g o', run: () => void navigate(address.glossary(project)) },
      { id: 'go-settings', title: 'Go to the settings of the project', run: () => void navigate(address.settings(project)) },
      { id: 'go-people', title: 'Go to the people of the project', run: () => void navigate(address.people(project)) },
      { id: 'go-account', title: 'Go to your account', run: () => void navigate(address.account(project)) },
      ...(canEdit ? bringingIn(project).map(({ title, to }) => ({ id: to, title, run: () => void navigate(to) })) : []),
      ...(seeAgreed === null ? [] : [{ id: 'see-agreed', title: 'See only what is agreed', run: seeAgreed }]),
    ],
    [canEdit, navigate, project, seeAgreed, setOpen],
  );
  useCommands(commands);
}

/** For those who may write. */
function bringingIn(project: string): readonly { readonly title: string; readonly to: string }[] {
  return [
    { title: 'Import requirements from a file', to: address.importing(project) },
    { title: 'Import cases from a file', to: address.importingCases(project) },
    { title: 'Import features from files', to: address.importingFeatures(project) },
    { title: 'Bring in a part of another project', to: address.importingDesign(project) },
    { title: 'Hand something off', to: address.newHandOff(project) },
  ];
}
