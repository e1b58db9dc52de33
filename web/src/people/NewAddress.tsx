import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import { call, failureSentence, keys } from '../api/index.ts';
import { Button } from '../look/index.ts';
import { Cover } from './Cover.tsx';

/** Where the link leads that was mailed to a new address: it is taken by a click, so that no mail program that only looks takes it. */
export function NewAddress() {
  const client = useQueryClient();
  const token = window.location.hash.slice(1);
  const { mutate, data, error, isPending } = useMutation({ mutationFn: () => call('confirmEmail', { body: { token } }), onSuccess: (session) => client.setQueryData(keys.session, session) });
  return (
    <Cover>
      <h1 className="font-serif text-xl font-semibold">Your new e-mail address</h1>
      {data === undefined ? (
        <>
          <p className="mt-1 text-sm text-ink2">From now on you sign in with the address that the link was mailed to.</p>
          {error !== null && (
            <p role="alert" className="mt-2 text-sm text-brick">
              {failureSentence(error)}
            </p>
          )}
          <Button look="accent" className="mt-3" disabled={isPending || token === ''} onClick={() => mutate()}>
            Take it
          </Button>
        </>
      ) : (
        <p className="mt-1 text-sm" role="status">
          It is yours now. <Link to="/" className="underline">Go on</Link>
        </p>
      )}
    </Cover>
  );
}
