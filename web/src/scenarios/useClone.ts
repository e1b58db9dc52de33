import { fileNameOf, folderOf, freePath, withName, type FeatureContent } from '@caderno/core/scenarios';
import { useSummaries } from '../api/index.ts';
import { useMakeAndOpen } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';

/** Makes a copy of a feature, as it is shown, beside it and opens it; its scenarios cover what they cover here. */
export function useClone(): (content: FeatureContent) => Promise<void> {
  const { project } = useFrame();
  const makeAndOpen = useMakeAndOpen(project);
  const features = useSummaries(project, 'feature').data;
  return async (content) => {
    const path = freePath(folderOf(content.path), `${fileNameOf(content.path)}-copy`, features?.map((f) => f.path) ?? []);
    await makeAndOpen({ kind: 'feature', content: withName({ ...content, path }, `${content.title} (copy)`) });
  };
}
