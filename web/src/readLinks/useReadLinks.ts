import type { NewReadLink, ReadLink } from '@caderno/contract';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { call, tellFailure } from '../api/index.ts';

const keyOf = (project: string) => [project, 'readLinks'] as const;

/** The links of a project that open something, and how one is given or ended. `give` answers the address; null: it was refused. */
export function useReadLinks(project: string): { readonly links: readonly ReadLink[] | undefined; readonly give: (link: NewReadLink) => Promise<string | null>; readonly end: (id: string) => void } {
  const client = useQueryClient();
  const { data: links } = useQuery({ queryKey: keyOf(project), queryFn: () => call('listReadLinks', { params: { project } }) });
  const show = (left: ReadLink[]): void => void client.setQueryData(keyOf(project), left);
  return {
    links,
    give: async (body) => {
      try {
        const made = await call('makeReadLink', { params: { project }, body });
        show(made.links);
        return `${window.location.origin}/shown#${made.token}`;
      } catch (error) {
        tellFailure(error);
        return null;
      }
    },
    end: (link) => void call('endReadLink', { params: { project, link } }).then(show, tellFailure),
  };
}
