import { fileNameOf, folderOf, freePath, withName, type FeatureContent } from '@caderno/core/scenarios';
import { useNavigate } from 'react-router';
import { useSummaries } from '../api/index.ts';
import { useCreate } from '../artefacts/index.ts';
import { address, useFrame } from '../frame/index.ts';

/** Makes a copy of a feature, as it is shown, beside it and opens it; its scenarios cover what they cover here. */
export function useClone(): (content: FeatureContent) => Promise<void> {
  const { project } = useFrame();
  const create = useCreate(project);
  const navigate = useNavigate();
  const features = useSummaries(project, 'feature').data;
  return async (content) => {
    const path = freePath(folderOf(content.path), `${fileNameOf(content.path)}-copy`, features?.map((f) => f.path) ?? []);
    const id = await create({ kind: 'feature', content: withName({ ...content, path }, `${content.title} (copy)`) });
    if (id !== null) await navigate(address.artefact(project, id), { state: { made: true } });
  };
}
