import type { RequirementId } from '@caderno/core/artefacts';
import { Link } from 'react-router';
import { useSummaries } from '../api/index.ts';
import { MarginNote } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { countOf } from '../look/index.ts';

/** The features that are written for a requirement. */
export function FeatureLines({ id }: { readonly id: RequirementId }) {
  const { project } = useFrame();
  const features = useSummaries(project, 'feature').data?.filter((f) => f.state !== 'withdrawn' && f.requirements.includes(id)) ?? [];
  if (features.length === 0) return null;
  return (
    <MarginNote title="Features">
      <ul>
        {features.map((feature) => (
          <li key={feature.id}>
            <Link className="text-ink underline decoration-rule2" to={address.scenarios(project, feature.id)}>
              <span className="font-mono text-xs">{feature.id}</span> {feature.title}
            </Link>
            , {countOf(feature.scenarios.length, 'scenario')}
          </li>
        ))}
      </ul>
    </MarginNote>
  );
}
