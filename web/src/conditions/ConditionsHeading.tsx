import { Link, useLocation } from 'react-router';
import { address, useFrame } from '../frame/index.ts';

/** The left page shows a requirement and what hangs on it, or all conditions in a list. */
export function ConditionsHeading({ all }: { readonly all: boolean }) {
  const { project } = useFrame();
  const { pathname } = useLocation();
  const look = (on: boolean): string => `font-serif ${on ? 'text-xl font-semibold' : 'text-base text-ink2 underline decoration-rule2 underline-offset-4'}`;
  return (
    <h1 className="flex items-baseline gap-4">
      <Link className={look(!all)} aria-current={all ? undefined : 'true'} to={address.conditions(project)}>
        Conditions
      </Link>
      <Link className={look(all)} aria-current={all ? 'true' : undefined} to={{ pathname, search: 'left=all' }}>
        All in a list
      </Link>
    </h1>
  );
}
