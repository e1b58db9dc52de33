import type { CoveringId, SuiteId } from '@caderno/core/artefacts';
import type { SuiteLine } from '@caderno/contract';
import { Link } from 'react-router';
import { address, useFrame } from '../frame/index.ts';
import { Button, Dialog, locale } from '../look/index.ts';
import { useMemberTitle } from '../suiteMembers/index.ts';

interface Props {
  readonly id: SuiteId;
  readonly own: readonly CoveringId[];
  readonly other: SuiteLine;
  readonly titleOfOther: string;
  readonly onClose: () => void;
}

const MOST_SHOWN = 300;

/** What two suites share, and what only one of them has. */
export function CompareSuites({ id, own, other, titleOfOther, onClose }: Props) {
  const { project } = useFrame();
  const titleOf = useMemberTitle(project);
  const [here, there] = [new Set(own), new Set(other.members)];
  const lists = [
    { title: `In both`, members: own.filter((m) => there.has(m)) },
    { title: `Only in ${id}`, members: own.filter((m) => !there.has(m)) },
    { title: `Only in ${other.id}`, members: other.members.filter((m) => !here.has(m)) },
  ];
  return (
    <Dialog title={`${id} and ${other.id} ${titleOfOther}`} onClose={onClose} wide>
      <div className="grid max-h-[60vh] grid-cols-3 gap-5 overflow-y-auto text-sm max-tablet:grid-cols-1" tabIndex={0} role="group" aria-label="What they share">
        {lists.map(({ title, members }) => (
          <section key={title}>
            <h3 className="border-b border-ink pb-1 font-serif font-semibold">
              {title} <span className="font-sans text-xs font-normal text-ink2">{members.length.toLocaleString(locale())}</span>
            </h3>
            <ul>
              {members.slice(0, MOST_SHOWN).map((of) => (
                <li key={of} className="border-b border-rule py-1 leading-[1.35]">
                  <Link to={address.covering(project, of)} className="font-mono text-xs underline decoration-rule2">
                    {of}
                  </Link>{' '}
                  {titleOf(of)}
                </li>
              ))}
            </ul>
            {members.length > MOST_SHOWN && <p className="text-xs text-ink2">and {(members.length - MOST_SHOWN).toLocaleString(locale())} more</p>}
            {members.length === 0 && <p className="py-1 text-ink2">nothing</p>}
          </section>
        ))}
      </div>
      <p className="mt-4 flex items-center justify-end gap-2">
        <Link to={address.suites(project, other.id)} className="mr-auto text-sm underline decoration-rule2">
          Open {other.id}
        </Link>
        <Button onClick={onClose}>Close</Button>
      </p>
    </Dialog>
  );
}
