import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { roleReaches, type Person, type ProjectRef } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { Inbox } from 'lucide-react';
import { Suspense, lazy, useState } from 'react';
import { NavLink, Outlet, useLocation, useNavigate } from 'react-router';
import { call, keys, tellFailure, forgetLogs, useUnread, useFigures, useOpenThreads, useListedAhead, useProjectStream, useReviews } from '../api/index.ts';
import { address } from './address.ts';
import { THEMES, THEME_WORD, chooseTheme, notify, useTheme, MenuLine } from '../look/index.ts';
import { FindField } from './FindField.tsx';
import { IndexTabs } from './IndexTabs.tsx';
import { PastBanner, pastWords, type Past } from './PastBanner.tsx';
import { SkipLink } from './SkipLink.tsx';
import { useFrameCommands } from './useFrameCommands.ts';
import { UndoLast } from './UndoLast.tsx';
import { browserTitle, useNameOfPage } from './pageName.ts';

const HelpDialog = lazy(() => import('./HelpDialog.tsx').then((m) => ({ default: m.HelpDialog })));

interface Props {
  readonly project: ProjectRef;
  readonly projects: readonly ProjectRef[];
  readonly person: Person;
  /** Everybody who reaches the server may come in. */
  readonly openToAll: boolean;
  readonly mayMakeProjects: boolean;
  /** The moment it is open as; null: it is the project of now. */
  readonly past?: Past | null;
}

/** What pages below the frame can count on. */
export interface FrameContext {
  readonly project: string;
  readonly person: Person;
  readonly canEdit: boolean;
  /** May change what leads change: scales, the tracker. */
  readonly canLead: boolean;
  readonly canManage: boolean;
  /** It is the project as it was: nobody changes it, and nobody talks about it here. */
  readonly isPast: boolean;
}

/** The book on the desk: name and find field above it, index tabs at its right edge. */
export function Frame({ project, projects, person, openToAll, mayMakeProjects, past = null }: Props) {
  const [open, setOpen] = useState<'find' | 'keys' | null>(null);
  const { connected } = useProjectStream(project.key);
  useListedAhead(project.key);
  const title = browserTitle(useNameOfPage(), useLocation().pathname, past === null ? project.name : `${project.name} ${pastWords(past)}`);
  const context: FrameContext = { project: project.key, person, canEdit: roleReaches(project.role, 'analyst'), canLead: roleReaches(project.role, 'lead'), canManage: roleReaches(project.role, 'administrator'), isPast: past !== null };
  useFrameCommands(context, setOpen);
  return (
    <div className="flex h-full min-w-[320px] flex-col">
      <title>{title}</title>
      <SkipLink />
      {context.canEdit && <UndoLast project={project.key} person={person.name} />}
      <header className="flex min-h-[46px] shrink-0 flex-wrap items-center gap-x-4 px-5 max-phone:px-3 max-phone:pb-1.5">
        <NavLink to={address.coverage(project.key)} className="flex items-center gap-2.5 font-serif text-xl font-bold">
          <Mark />
          Caderno
        </NavLink>
        <ProjectName project={project} projects={projects} />
        <button
          type="button"
          onClick={() => setOpen('find')}
          className="mx-auto flex h-8 w-[min(400px,28vw)] items-center max-phone:order-last max-phone:w-full rounded-panel border border-rule2 bg-page2 px-3 text-ink2 hover:border-ink3"
        >
          <span className="truncate">Find or do anything…</span>
          <kbd className="ml-auto shrink-0 whitespace-nowrap rounded-[3px] border border-rule2 bg-page px-1.5 font-mono text-[10.5px]">Ctrl K</kbd>
        </button>
        {past === null && <Open project={project.key} person={person.id} />}
        <PersonMenu project={project.key} person={person} onKeys={() => setOpen('keys')} canManage={context.canManage} mayMakeProjects={mayMakeProjects} />
      </header>
      {openToAll && <OpenToAll />}
      {!connected && <Offline />}
      {past !== null && <PastBanner past={past} />}
      <div className="flex min-h-0 flex-1 pb-3 pl-3.5 max-phone:flex-col max-phone:px-1.5 max-phone:pb-1.5">
        <IndexTabs project={project.key} isPast={past !== null} />
        <main id="page" tabIndex={-1} className="order-first min-h-0 min-w-0 flex-1 overflow-hidden max-phone:order-last rounded-[10px] rounded-tr-[3px] border border-rule2 bg-page focus:outline-none">
          <Outlet context={context} />
        </main>
      </div>
      <FindField project={project.key} isOpen={open === 'find'} onClose={() => setOpen(null)} />
      {open === 'keys' && (
        <Suspense>
          <HelpDialog onClose={() => setOpen(null)} />
        </Suspense>
      )}
    </div>
  );
}

function Mark() {
  return (
    <svg viewBox="0 0 22 22" width="22" height="22" aria-hidden="true">
      <rect x="4.5" y="1" width="16" height="20" rx="2.5" fill="var(--color-blue)" />
      <path d="M1.5 6h5M1.5 11h5M1.5 16h5" stroke="var(--color-blue)" strokeWidth="2.2" strokeLinecap="round" />
      <path d="M8.5 1v20" stroke="var(--color-desk)" strokeWidth="1" />
    </svg>
  );
}

function ProjectName({ project, projects }: { readonly project: ProjectRef; readonly projects: readonly ProjectRef[] }) {
  const navigate = useNavigate();
  if (projects.length < 2) return <span className="truncate text-ink2">{project.name}</span>;
  return (
    <Menu>
      <MenuButton className="truncate text-ink2 underline decoration-rule2 underline-offset-4">{project.name}</MenuButton>
      <MenuItems anchor="bottom start" className="z-50 rounded-panel border border-rule2 bg-page py-1 focus:outline-none">
        {projects.map((p) => (
          <MenuLine key={p.key} onPick={() => void navigate(address.coverage(p.key))}>
            {p.name}
          </MenuLine>
        ))}
      </MenuItems>
    </Menu>
  );
}

interface PersonMenuProps {
  readonly project: string;
  readonly person: Person;
  readonly onKeys: () => void;
  readonly canManage: boolean;
  readonly mayMakeProjects: boolean;
}

function PersonMenu({ project, person, onKeys, canManage, mayMakeProjects }: PersonMenuProps) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const signOut = (): void => {
    call('signOut').then((session) => {
      notify((notices) => notices.dismiss());
      client.clear();
      forgetLogs(client);
      client.setQueryData(keys.session, session);
      void navigate('/', { replace: true });
    }, tellFailure);
  };
  return (
    <Menu>
      <MenuButton aria-label={`${person.name}: account`} className="grid size-[30px] place-items-center rounded-full bg-blue text-fine font-semibold text-on-accent">
        {initials(person.name)}
      </MenuButton>
      <MenuItems anchor={{ to: 'bottom end', gap: 6 }} className="z-50 w-56 rounded-panel border border-rule2 bg-page py-1.5 focus:outline-none">
        <div className="border-b border-rule px-4 pb-2 text-sm">
          <div className="font-semibold">{person.name}</div>
          <div className="text-xs text-ink2">{person.email}</div>
        </div>
        <MenuLine onPick={() => void navigate(address.journal(project))}>Journal</MenuLine>
        <MenuLine onPick={() => void navigate(address.settings(project))}>Settings of the project</MenuLine>
        <MenuLine onPick={() => void navigate(address.people(project))}>{canManage ? 'People, and add one' : 'People'}</MenuLine>
        <MenuLine onPick={() => void navigate(address.account(project))}>Your account</MenuLine>
        {person.administrator && !person.demo && (
          <MenuLine onPick={() => void navigate(address.server(project))}>Accounts of the server</MenuLine>
        )}
        <ThemeChoice />
        <MenuLine onPick={onKeys}>Help and keys <kbd className="font-mono text-xs text-ink2">?</kbd></MenuLine>
        {mayMakeProjects && (
          <MenuLine onPick={() => void navigate('/new-project')}>New project</MenuLine>
        )}
        <MenuLine onPick={signOut}>Sign out</MenuLine>
      </MenuItems>
    </Menu>
  );
}

/** Day, night, or as the system has it. */
function ThemeChoice() {
  const chosen = useTheme();
  return (
    <div role="group" aria-label="Theme" className="flex items-center gap-1 px-4 py-1.5 text-xs">
      {THEMES.map((theme) => (
        <MenuItem key={theme}>
          <button type="button" aria-pressed={theme === chosen} onClick={() => chooseTheme(theme)} className={`min-h-6 whitespace-nowrap rounded-[4px] px-1.5 data-focus:bg-blue-wash ${theme === chosen ? 'bg-page2 font-semibold' : 'text-ink2'}`}>
            {THEME_WORD[theme]}
          </button>
        </MenuItem>
      ))}
    </div>
  );
}

export function initials(name: string): string {
  return name
    .split(/\s+/)
    .map((word) => word[0] ?? '')
    .join('')
    .slice(0, 2)
    .toUpperCase();
}

function OpenToAll() {
  return <div className="mx-3.5 mb-1.5 rounded-field bg-brick-wash px-4 py-1.5 text-base font-semibold text-brick">Open to all: whoever reaches this server signs in without a password.</div>;
}

function Offline() {
  return (
    <div role="status" className="mx-3.5 mb-1.5 rounded-field bg-ochre-wash px-4 py-1.5 text-sm text-ochre-ink">
      The server does not answer just now. What you type is kept here and sent as soon as it is back.
    </div>
  );
}

/** What waits for somebody: open questions, reviews, remarks and suspect links. */
function Open({ project, person }: { readonly project: string; readonly person: string }) {
  const figures = useFigures(project);
  const forMe = useOpenThreads(project).data?.filter((t) => t.forMe).length ?? 0;
  const reviews = useReviews(project).data?.filter((r) => r.endedAt === null) ?? [];
  const asking = reviews.filter((r) => r.asked.some((a) => a.person === person && a.waiting > 0)).length;
  const unread = useUnread(project).data?.unread ?? 0;
  if (figures === undefined) return null;
  const look = 'whitespace-nowrap text-sm text-ink2 hover:underline';
  return (
    <nav aria-label="What is open" className="flex shrink-0 items-center gap-4 max-phone:min-w-0 max-phone:shrink max-phone:flex-wrap max-phone:gap-x-2">
      <NavLink to={address.questions(project)} className={look}>
        <b className="font-semibold text-ink">{figures.openQuestions}</b> open {figures.openQuestions === 1 ? 'question' : 'questions'}
      </NavLink>
      {asking > 0 && (
        <NavLink to={address.reviews(project)} className={look}>
          <b className="font-semibold text-blue">{asking}</b> {asking === 1 ? 'review asks' : 'reviews ask'} you
        </NavLink>
      )}
      {asking === 0 && reviews.length > 0 && (
        <NavLink to={address.reviews(project)} className={look}>
          <b className="font-semibold text-ink">{reviews.length}</b> open {reviews.length === 1 ? 'review' : 'reviews'}
        </NavLink>
      )}
      {forMe > 0 && (
        <NavLink to={address.remarks(project)} className={look}>
          <b className="font-semibold text-blue">{forMe}</b> {forMe === 1 ? 'remark' : 'remarks'} for you
        </NavLink>
      )}
      {figures.suspectLinks > 0 && (
        <NavLink to={address.suspect(project)} className={look}>
          <b className="font-semibold text-brick">{figures.suspectLinks}</b> suspect {figures.suspectLinks === 1 ? 'link' : 'links'}
        </NavLink>
      )}
      <NavLink to={address.inbox(project)} aria-label={unread === 0 ? 'Inbox' : `Inbox: ${unreadWords(unread)} not read`} title="Inbox" className="relative grid size-[30px] place-items-center rounded-full text-ink2 hover:bg-page2">
        <Inbox size={18} aria-hidden="true" />
        {unread > 0 && <span className="absolute -right-1.5 -top-0.5 min-w-[17px] rounded-full bg-blue px-1 text-center text-[10.5px] font-semibold leading-[17px] text-on-accent">{unreadWords(unread)}</span>}
      </NavLink>
    </nav>
  );
}

function unreadWords(unread: number): string {
  return unread > 99 ? '99+' : String(unread);
}
