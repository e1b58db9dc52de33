import type { Member } from '@caderno/contract';
import { useModules } from '../api/index.ts';
import { AllOrSome } from '../look/index.ts';

interface Props {
  readonly project: string;
  readonly member: Member;
  readonly onSet: (sees: readonly string[] | null) => void;
  readonly onClose: () => void;
}

/** Asks what a reader sees of the project. */
export function SeenModulesDialog({ project, member: { name, sees }, onSet, onClose }: Props) {
  const known = useModules(project);
  // A module that has been renamed, or has nothing in it any more, is still among what they were given.
  const gone = (sees ?? []).filter((module) => !known.includes(module));
  return (
    <AllOrSome
      title={`What ${name} sees`}
      all="everything in the project"
      some="only these modules, and what they use"
      label="Modules"
      items={[...known.map((module) => ({ id: module, name: module })), ...gone.map((module) => ({ id: module, name: module, aside: 'nothing is in it now' }))]}
      none="Nothing in the project stands in a module yet."
      chosen={sees}
      onSet={onSet}
      onClose={onClose}
    >
      They read these and nothing else: requirements and cases in them, the conditions of these requirements, questions about nothing else, and the shared steps and data that are used there, wherever those stand. Coverage counts only what they see. They leave no remarks, are asked for no agreement,
      and get no mail about the project.
    </AllOrSome>
  );
}
