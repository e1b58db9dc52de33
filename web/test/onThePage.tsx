import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { configure, render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter, Outlet, Route, Routes, useLocation } from 'react-router';
import { useProjectStream } from '../src/api/index.ts';
import type { FrameContext } from '../src/frame/Frame.tsx';

// A machine that is busy with other tests takes its time; what never comes is told by the test's own end.
configure({ asyncUtilTimeout: 10_000 });

export const PERSON = { id: '00000000-0000-4000-8000-000000000001', name: 'Inês V.', email: 'ines@example.com' } as const;
export const PROJECT = 'p';

/** Puts a page into the frame it stands in, for one who may change everything unless said otherwise. */
export function onThePage(page: ReactNode, context: Partial<FrameContext> = {}, path = '/p/here', route = '*') {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: 30_000, gcTime: Number.POSITIVE_INFINITY }, mutations: { gcTime: Number.POSITIVE_INFINITY } } });
  const whole: FrameContext = { project: PROJECT, person: PERSON, canEdit: true, canLead: true, canManage: true, isPast: false, ...context } as FrameContext;
  const wrap = (inner: ReactNode) => (
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[path]}>
        <Routes>
          <Route element={<Heard context={whole} />}>
            <Route path={route} element={inner} />
          </Route>
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>
  );
  const { rerender, ...rest } = render(wrap(page));
  return { ...rest, client, again: (inner: ReactNode) => rerender(wrap(inner)) };
}

/** As in the frame: what is known of the project is filled and kept up to date. */
function Heard({ context }: { readonly context: FrameContext }) {
  useProjectStream(context.project);
  return (
    <>
      <Outlet context={context} />
      <Address />
    </>
  );
}

/** Where one is, for a test to read. */
function Address() {
  const { pathname, search } = useLocation();
  return <span title="Address">{pathname + search}</span>;
}
