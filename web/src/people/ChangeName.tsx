import { zodResolver } from '@hookform/resolvers/zod';
import { newNameSchema, type Person } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { toast } from 'sonner';
import { call, keys, tellFailure } from '../api/index.ts';
import { Button } from '../look/index.ts';
import { Field } from './Field.tsx';

/** What one is called, everywhere and as an owner too. */
export function ChangeName({ person }: { readonly person: Person }) {
  const client = useQueryClient();
  const { register, handleSubmit, formState } = useForm({ resolver: zodResolver(newNameSchema), defaultValues: { name: person.name } });
  const change = (body: { name: string }): Promise<void> =>
    call('changeName', { body }).then((session) => {
      toast.success(`You are ${body.name.trim()} now. What you own says so too; the journal of each project has it.`);
      client.setQueryData(keys.session, session);
      return client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[1] === 'members' });
    }, tellFailure);
  return (
    <form className="px-7 pb-7" onSubmit={handleSubmit(change)} noValidate>
      <h2 className="font-serif text-xl font-semibold">Change your name</h2>
      <Field label="Your name" autoComplete="name" error={formState.errors.name && 'is needed'} {...register('name')} />
      <Button type="submit" className="mt-3" disabled={formState.isSubmitting || !formState.isDirty}>
        Be called so
      </Button>
    </form>
  );
}
