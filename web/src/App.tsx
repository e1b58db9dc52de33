import { artefactIdSchema, momentOfKey, momentText, projectKeySchema, type Moment, type OpenedMoment, type Session } from '@caderno/contract';
import { QueryCache, QueryClient, QueryClientProvider, useQuery, useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, type ComponentProps, type ReactNode } from 'react';
import { Link, Navigate, createBrowserRouter, useLocation, useParams } from 'react-router';
import { RouterProvider } from 'react-router/dom';
import { call, failureSentence, forgetLogs, isPassing, isSeenOtherwise, isSignedOut, keys, useSession } from './api/index.ts';
import { followFocus } from './focus/index.ts';
import { Frame, PageFailed, address, type Past } from './frame/index.ts';
import { Empty, Notices, notify } from './look/index.ts';

// A chapter is fetched when it is first opened; forms, editors and Markdown come with those that need them.
const SignIn = lazy(() => import('./people/index.ts').then((m) => ({ default: m.SignIn })));
const SetUp = lazy(() => import('./people/index.ts').then((m) => ({ default: m.SetUp })));
const NewProject = lazy(() => import('./people/index.ts').then((m) => ({ default: m.NewProject })));
const PeoplePage = lazy(() => import('./people/index.ts').then((m) => ({ default: m.PeoplePage })));
const AccountPage = lazy(() => import('./people/index.ts').then((m) => ({ default: m.AccountPage })));
const ServerPage = lazy(() => import('./people/index.ts').then((m) => ({ default: m.ServerPage })));
const Invited = lazy(() => import('./people/index.ts').then((m) => ({ default: m.Invited })));
const NewAddress = lazy(() => import('./people/index.ts').then((m) => ({ default: m.NewAddress })));
const ShownPage = lazy(() => import('./shown/index.ts').then((m) => ({ default: m.ShownPage })));
const ResetPassword = lazy(() => import('./people/index.ts').then((m) => ({ default: m.ResetPassword })));
const BasisChapter = lazy(() => import('./basis/index.ts').then((m) => ({ default: m.BasisChapter })));
const ConditionsChapter = lazy(() => import('./conditions/index.ts').then((m) => ({ default: m.ConditionsChapter })));
const ConditionAddress = lazy(() => import('./conditions/index.ts').then((m) => ({ default: m.ConditionAddress })));
const CasesChapter = lazy(() => import('./cases/index.ts').then((m) => ({ default: m.CasesChapter })));
const ReplacePage = lazy(() => import('./replacing/index.ts').then((m) => ({ default: m.ReplacePage })));
const ListChapter = lazy(() => import('./lists/index.ts').then((m) => ({ default: m.ListChapter })));
const ScenariosChapter = lazy(() => import('./scenarios/index.ts').then((m) => ({ default: m.ScenariosChapter })));
const TwicePage = lazy(() => import('./scenarios/index.ts').then((m) => ({ default: m.TwicePage })));
const PhrasebookPage = lazy(() => import('./scenarios/index.ts').then((m) => ({ default: m.PhrasebookPage })));
const SharedChapter = lazy(() => import('./shared/index.ts').then((m) => ({ default: m.SharedChapter })));
const ReadThrough = lazy(() => import('./reading/index.ts').then((m) => ({ default: m.ReadThrough })));
const ReadSelection = lazy(() => import('./reading/index.ts').then((m) => ({ default: m.ReadSelection })));
const ReuseGraphPage = lazy(() => import('./reuseMap/index.ts').then((m) => ({ default: m.ReuseGraphPage })));
const AlikePage = lazy(() => import('./shared/index.ts').then((m) => ({ default: m.AlikePage })));
const CoverageChapter = lazy(() => import('./coverage/index.ts').then((m) => ({ default: m.CoverageChapter })));
const HandOffsChapter = lazy(() => import('./handOffs/index.ts').then((m) => ({ default: m.HandOffsChapter })));
const NewHandOffPage = lazy(() => import('./handOffs/index.ts').then((m) => ({ default: m.NewHandOffPage })));
const TrendPage = lazy(() => import('./trend/index.ts').then((m) => ({ default: m.TrendPage })));
const ReportPage = lazy(() => import('./report/index.ts').then((m) => ({ default: m.ReportPage })));
const SpecificationPage = lazy(() => import('./specification/index.ts').then((m) => ({ default: m.SpecificationPage })));
const CountsPage = lazy(() => import('./counts/index.ts').then((m) => ({ default: m.CountsPage })));
const MatrixPage = lazy(() => import('./matrix/index.ts').then((m) => ({ default: m.MatrixPage })));
const VersionsPage = lazy(() => import('./journal/index.ts').then((m) => ({ default: m.VersionsPage })));
const QuestionsChapter = lazy(() => import('./questions/index.ts').then((m) => ({ default: m.QuestionsChapter })));
const Agenda = lazy(() => import('./questions/index.ts').then((m) => ({ default: m.Agenda })));
const InboxPage = lazy(() => import('./inbox/index.ts').then((m) => ({ default: m.InboxPage })));
const MailsPage = lazy(() => import('./inbox/index.ts').then((m) => ({ default: m.MailsPage })));
const RemarksPage = lazy(() => import('./remarks/index.ts').then((m) => ({ default: m.RemarksPage })));
const BaselinesChapter = lazy(() => import('./baselines/index.ts').then((m) => ({ default: m.BaselinesChapter })));
const SuitesChapter = lazy(() => import('./suites/index.ts').then((m) => ({ default: m.SuitesChapter })));
const ReviewsPage = lazy(() => import('./reviews/index.ts').then((m) => ({ default: m.ReviewsPage })));
const ReviewPage = lazy(() => import('./reviews/index.ts').then((m) => ({ default: m.ReviewPage })));
const SuspectPage = lazy(() => import('./basis/index.ts').then((m) => ({ default: m.SuspectPage })));
const GlossaryPage = lazy(() => import('./basis/index.ts').then((m) => ({ default: m.GlossaryPage })));
const CaseImportPage = lazy(() => import('./exchange/index.ts').then((m) => ({ default: m.CaseImportPage })));
const DesignImportPage = lazy(() => import('./exchange/index.ts').then((m) => ({ default: m.DesignImportPage })));
const FeatureImportPage = lazy(() => import('./exchange/index.ts').then((m) => ({ default: m.FeatureImportPage })));
const ImportPage = lazy(() => import('./exchange/index.ts').then((m) => ({ default: m.ImportPage })));
const SettingsPage = lazy(() => import('./projects/index.ts').then((m) => ({ default: m.SettingsPage })));
const JournalPage = lazy(() => import('./journal/index.ts').then((m) => ({ default: m.JournalPage })));

/** Before anything is there, or when nothing can be; the pages of artefacts have their own words, which come with them. */
function Opening({ error }: { readonly error: unknown }) {
  return error === null ? <p className="p-7 text-ink2">Reading …</p> : <Empty title="This cannot be shown">{failureSentence(error)}</Empty>;
}

function chapter(page: ReactNode): ReactNode {
  return <Suspense fallback={<Opening error={null} />}>{page}</Suspense>;
}

const client: QueryClient = new QueryClient({
  // Whatever is answered that nobody is signed in any more, or sees something else: the session is asked for at once, and the page goes.
  queryCache: new QueryCache({ onError: (error) => (isSignedOut(error) || isSeenOtherwise(error)) && void client.invalidateQueries({ queryKey: keys.session }) }),
  // Events tell what is stale; a window that comes back to the front has nothing to ask.
  defaultOptions: { queries: { staleTime: 30_000, refetchOnWindowFocus: false, retry: (count, error) => isPassing(error) && count < 30, retryDelay: 1_500 } },
});

const router = createBrowserRouter([
  { path: '/', element: <SignedIn start />, errorElement: <PageFailed /> },
  { path: '/new-project', element: <SignedIn newProject />, errorElement: <PageFailed /> },
  { path: '/shown', element: chapter(<ShownPage />), errorElement: <PageFailed /> },
  { path: '/invited', element: chapter(<Invited />), errorElement: <PageFailed /> },
  { path: '/new-address', element: chapter(<NewAddress />), errorElement: <PageFailed /> },
  { path: '/reset', element: chapter(<ResetPassword />), errorElement: <PageFailed /> },
  {
    path: '/:project',
    element: <SignedIn />,
    errorElement: <PageFailed />,
    // A page that fails leaves the frame around it as it is.
    children: [{ errorElement: <PageFailed />, children: [
      { index: true, element: <Navigate to="coverage" replace /> },
      { path: 'basis/:requirement?', element: chapter(<BasisChapter />) },
      { path: 'conditions/:requirement?/:condition?', element: chapter(<ConditionsChapter />) },
      { path: 'condition/:condition', element: chapter(<ConditionAddress />) },
      { path: 'cases/:case?', element: chapter(<CasesChapter />) },
      { path: 'list/:kind', element: chapter(<ListChapter />) },
      { path: 'replace', element: chapter(<ReplacePage />) },
      { path: 'scenarios/:feature?', element: chapter(<ScenariosChapter />) },
      { path: 'scenarios-twice', element: chapter(<TwicePage />) },
      { path: 'phrasebook', element: chapter(<PhrasebookPage />) },
      { path: 'shared/:shared?', element: chapter(<SharedChapter />) },
      { path: 'read', element: chapter(<ReadSelection />) },
      { path: 'reuse', element: chapter(<ReuseGraphPage />) },
      { path: 'alike', element: chapter(<AlikePage />) },
      { path: 'read/:case/:scenario?', element: chapter(<ReadThrough />) },
      { path: 'coverage', element: chapter(<CoverageChapter />) },
      { path: 'trend', element: chapter(<TrendPage />) },
      { path: 'report', element: chapter(<ReportPage />) },
      { path: 'specification', element: chapter(<SpecificationPage />) },
      { path: 'counts', element: chapter(<CountsPage />) },
      { path: 'matrix', element: chapter(<MatrixPage />) },
      { path: 'questions/:question?', element: chapter(<QuestionsChapter />) },
      { path: 'agenda', element: chapter(<Agenda />) },
      { path: 'open/:id', element: <OpenArtefact /> },
      { path: 'mails', element: chapter(<MailsPage />) },
      { path: 'inbox', element: chapter(<InboxPage />) },
      { path: 'remarks', element: chapter(<RemarksPage />) },
      { path: 'baselines', element: chapter(<BaselinesChapter />) },
      { path: 'baselines/:baseline', element: chapter(<BaselinesChapter />) },
      { path: 'suites/:suite?', element: chapter(<SuitesChapter />) },
      { path: 'hand-offs/new', element: chapter(<NewHandOffPage />) },
      { path: 'hand-offs/:handOff?', element: chapter(<HandOffsChapter />) },
      { path: 'reviews', element: chapter(<ReviewsPage />) },
      { path: 'reviews/:review', element: chapter(<ReviewPage />) },
      { path: 'suspect', element: chapter(<SuspectPage />) },
      { path: 'glossary', element: chapter(<GlossaryPage />) },
      { path: 'import-cases', element: chapter(<CaseImportPage />) },
      { path: 'import-design', element: chapter(<DesignImportPage />) },
      { path: 'import-features', element: chapter(<FeatureImportPage />) },
      { path: 'import', element: chapter(<ImportPage />) },
      { path: 'settings', element: chapter(<SettingsPage />) },
      { path: 'journal', element: chapter(<JournalPage />) },
      { path: 'people', element: chapter(<PeoplePage />) },
      { path: 'account', element: chapter(<AccountPage />) },
      { path: 'server', element: chapter(<ServerPage />) },
      { path: 'versions/:id', element: chapter(<VersionsPage />) },
      { path: '*', element: <Empty title="There is no such page">The address names nothing in this project.</Empty> },
    ] }],
  },
]);

export function App() {
  useEffect(() => followFocus(document), []);
  return (
    <QueryClientProvider client={client}>
      <RouterProvider router={router} />
      <Notices />
    </QueryClientProvider>
  );
}

/** The one address that leads to any artefact, as mails have it. */
function OpenArtefact() {
  const { project = '', id = '' } = useParams();
  const parsed = artefactIdSchema.safeParse(id);
  return parsed.success ? <Navigate to={address.artefact(project, parsed.data)} replace /> : <Empty title="There is no such page">The address names nothing in this project.</Empty>;
}

/** Asks who one is first; then leads to the project. */
function SignedIn({ start = false, newProject = false }: { readonly start?: boolean; readonly newProject?: boolean }) {
  const { data: session, error } = useSession();
  const { project: key } = useParams();
  if (session === undefined) return <Opening error={error} />;
  if (session.needsSetup) return chapter(<SetUp />);
  if (session.person === null) return <SignedOut session={session} />;
  const [first] = session.projects;
  if (newProject || (first === undefined && session.mayMakeProjects)) return chapter(<NewProject />);
  if (first === undefined) return <Empty title="No project yet">You have an account, and no project is open to you. An administrator can add you to one.</Empty>;
  if (start) return <Navigate to={address.coverage(first.key)} replace />;
  const past = projectKeySchema.safeParse(key).success ? momentOfKey(key ?? '') : null;
  const project = session.projects.find((p) => p.key === (past?.project ?? key));
  if (project === undefined) return <Empty title="No such project">You have no project “{key}”.</Empty>;
  const around = { projects: session.projects, person: session.person, openToAll: session.openToAll, mayMakeProjects: session.mayMakeProjects };
  if (project.sees !== null && past?.moment.kind !== 'part') return <PartOfProject key={key} project={project.key} />;
  return past === null ? <Frame key={project.key} project={project} {...around} /> : <PastProject key={key} past={past} {...around} />;
}

const momentQueryKey = (project: string, moment: string) => [project, 'moments', moment];

/** Leads whoever sees only some modules to these, as they are now: the same page of a project that holds nothing else. */
function PartOfProject({ project }: { readonly project: string }) {
  const { pathname, search } = useLocation();
  const client = useQueryClient();
  const open = async (): Promise<OpenedMoment> => {
    const part = await call('openPart', { params: { project }, body: {} });
    // It is open: the page that it leads to need not ask for it again, nor remember that it was gone.
    client.setQueryData(momentQueryKey(project, part.key.split('@')[1] ?? ''), part);
    return part;
  };
  const { data, error } = useQuery({ queryKey: [project, 'part'], queryFn: open, staleTime: 0, gcTime: 0 });
  const page = pathname.split('/').slice(2).join('/');
  if (data !== undefined) return <Navigate to={`/${data.key}/${page}${search}`} replace />;
  return error === null ? <p className="p-7 text-ink2">Opening what you see of the project …</p> : <Empty title="This project cannot be opened">{failureSentence(error)}</Empty>;
}

/** A project as it was at a moment, which is made ready first. */
function PastProject({ past, ...around }: { readonly past: Pick<Past, 'project' | 'moment'> } & Omit<ComponentProps<typeof Frame>, 'project' | 'past'>) {
  const { project, moment } = past;
  const text = momentText(moment);
  // One that was not looked at for long may be gone: it is asked for again whenever one comes to it.
  const { data, error } = useQuery({ queryKey: momentQueryKey(project, text), queryFn: () => call('openMoment', { params: { project, moment: text }, body: {} }), staleTime: Number.POSITIVE_INFINITY, gcTime: 0 });
  if (data !== undefined) return <Frame project={data} past={{ ...past, at: data.at, sees: data.sees }} {...around} />;
  if (error === null) return <p className="p-7 text-ink2">{openingWords(moment)}</p>;
  // A part that nobody looked at for long is not kept: what one sees now is opened instead.
  if (moment.kind === 'part') return <PartOfProject project={project} />;
  return (
    <Empty title="This moment cannot be opened" action={<Link className="underline" to={moment.kind === 'baseline' ? address.baselines(project) : address.journal(project)}>{moment.kind === 'baseline' ? 'The baselines of the project' : 'The journal of the project'}</Link>}>
      {failureSentence(error)}
    </Empty>
  );
}

function openingWords(moment: Moment): string {
  switch (moment.kind) {
    case 'baseline':
      return `Opening B-${moment.baseline}: the whole project as it was …`;
    case 'part':
      return 'Opening what you see of the project …';
    case 'revision':
      return moment.agreedOnly ? 'Looking up what is agreed …' : 'Opening the whole project as it was …';
  }
}

/** Nothing of a project is left on the page, nor kept beside it, once a session is over. */
function SignedOut({ session }: { readonly session: Session }) {
  const client = useQueryClient();
  useEffect(() => {
    notify((notices) => notices.dismiss());
    forgetLogs(client);
    client.removeQueries({ predicate: (query) => query.queryKey !== keys.session && query.queryKey[0] !== keys.session[0] });
  }, [client]);
  return chapter(<SignIn session={session} />);
}
