import { LIMITS, TOKEN_SCOPES, type AccessTokenLine, type TokenScope } from '@caderno/contract';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call, tellFailure } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Choose, Section, ShownOnce, TextButton, ago, dateAndTime, TextBox } from '../look/index.ts';

const TOKENS = ['account', 'tokens'] as const;

const SCOPE_WORD: Record<TokenScope, string> = { read: 'may read', write: 'may read and write' };
const SCOPES = TOKEN_SCOPES.map((scope) => ({ value: scope, name: SCOPE_WORD[scope] }));
const DAYS = ['7', '30', '90', '366'].map((days) => ({ value: days, name: days === '366' ? 'for a year' : `for ${days} days` }));

/** What programs sign in with instead of one's password: made, seen this once, withdrawn. */
export function AccessTokens() {
  const client = useQueryClient();
  const { data: tokens = [], error } = useQuery({ queryKey: TOKENS, queryFn: () => call('listTokens') });
  const [made, setMade] = useState<string | null>(null);
  const show = (left: readonly AccessTokenLine[]): void => void client.setQueryData(TOKENS, left);
  const withdraw = (token: AccessTokenLine): void => {
    call('withdrawToken', { params: { token: token.id } }).then(show, tellFailure);
  };
  return (
    <Section title="Access tokens" aside="with which a program comes in as you, into one project">
      <p className="mt-2 text-xs text-ink2">
        It pushes, pulls and checks a folder of features: <a href="/caderno.mjs" download className="underline underline-offset-2">save caderno.mjs</a>, which needs nothing but Node, and run <span className="font-mono">node caderno.mjs --help</span>.
      </p>
      {error !== null && <p className="py-2 text-sm text-brick">Your tokens cannot be read now.</p>}
      <ul className="divide-y divide-rule text-sm" aria-label="Access tokens">
        {tokens.map((token) => (
          <li key={token.id} className="flex items-center gap-3 py-2">
            <span className="min-w-0 flex-1">
              <span className="block truncate">
                <strong className="font-semibold">{token.name}</strong> {SCOPE_WORD[token.scope]} in {token.projectName}
              </span>
              <span className="block text-xs text-ink2">
                {isOver(token) ? <span className="text-brick">has ended</span> : `until ${dateAndTime(token.expiresAt)}`}, {token.usedAt === null ? 'never used yet' : `last used ${ago(token.usedAt)}`}
              </span>
            </span>
            <TextButton aria-label={`Withdraw ${token.name}`} onClick={() => withdraw(token)}>
              {isOver(token) ? 'take away' : 'withdraw'}
            </TextButton>
          </li>
        ))}
      </ul>
      {made !== null && <ShownOnce words="This is the token. It is shown this once: put it where the program finds it, as CADERNO_TOKEN." label="The token" value={made} onDone={() => setMade(null)} />}
      <NewToken onMade={({ token, tokens: all }) => (setMade(token), show(all))} />
    </Section>
  );
}

function isOver({ expiresAt }: AccessTokenLine): boolean {
  return new Date(expiresAt) <= new Date();
}

function NewToken({ onMade }: { readonly onMade: (made: { readonly token: string; readonly tokens: readonly AccessTokenLine[] }) => void }) {
  const { project } = useFrame();
  const [name, setName] = useState('');
  const [scope, setScope] = useState<TokenScope>('read');
  const [days, setDays] = useState('30');
  const make = (): void => {
    call('makeToken', { body: { name: name.trim(), project, scope, days: Number(days) } }).then((made) => (setName(''), onMade(made)), tellFailure);
  };
  return (
    <form
      className="mt-3 flex flex-wrap items-center gap-2 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim() !== '') make();
      }}
    >
      <TextBox aria-label="Name of the token" placeholder="What it is for, as nightly check" value={name} maxLength={LIMITS.name} onChange={setName} className="w-60" />
      <Choose label="What it may do" value={scope} options={SCOPES} onChange={setScope} />
      <Choose label="How long" value={days} options={DAYS} onChange={setDays} />
      <span className="text-ink2">in this project</span>
      <Button type="submit" disabled={name.trim() === ''}>
        Make a token
      </Button>
    </form>
  );
}
