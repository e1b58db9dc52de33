import { useFrame } from '../frame/index.ts';
import { Section } from '../look/index.ts';
import { ReadLinkLines, useReadLinks } from '../readLinks/index.ts';

/** All links of the project by which people without an account read something. */
export function ReadLinks() {
  const { project } = useFrame();
  const { links = [], end } = useReadLinks(project);
  if (links.length === 0) return null;
  return (
    <Section title="Links to read" aside="with which people without an account read one thing each">
      <ReadLinkLines project={project} links={links} onEnd={end} />
    </Section>
  );
}
