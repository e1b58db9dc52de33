import { zodResolver } from '@hookform/resolvers/zod';
import { newProjectSchema, type NewProject as NewProjectBody } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { address } from '../frame/index.ts';
import { call, failureSentence, keys, useSession } from '../api/index.ts';
import { Button } from '../look/index.ts';
import { Cover } from './Cover.tsx';
import { Field } from './Field.tsx';
import { FromFolder } from './FromFolder.tsx';
import { keyOfName } from './keyOfName.ts';

/** Make a project: one system under test and everything designed for it. */
export function NewProject() {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [failure, setFailure] = useState<string | null>(null);
  const { register, handleSubmit, formState, setValue, control } = useForm({ resolver: zodResolver(newProjectSchema), defaultValues: { name: '', key: '' } });
  const name = useWatch({ control, name: 'name' });
  const key = useWatch({ control, name: 'key' });
  // The key follows from the name until somebody writes one.
  const [ownKey, setOwnKey] = useState(false);
  const session = useSession().data;
  const [first] = session?.projects ?? [];
  const create = async (body: NewProjectBody): Promise<void> => {
    try {
      const project = await call('createProject', { body });
      await client.invalidateQueries({ queryKey: keys.session });
      await navigate(address.basis(project.key));
    } catch (error) {
      setFailure(failureSentence(error));
    }
  };
  return (
    <Cover>
      <form onSubmit={handleSubmit(create)} noValidate>
        <h1 className="font-serif text-xl font-semibold">Make a project</h1>
        <p className="mt-1 text-sm text-ink2">A project is one system under test and everything designed for it.</p>
        <Field label="Name" error={formState.errors.name && 'is needed'} autoFocus {...register('name', { onChange: (event: { target: { value: string } }) => ownKey || setValue('key', keyOfName(event.target.value)) })} />
        <Field label="Key" hint="Stands in addresses; it follows from the name." error={formState.errors.key && 'takes small letters, digits and hyphens, a letter first'} {...register('key', { onChange: () => setOwnKey(true) })} />
        {failure !== null && (
          <p role="alert" className="mt-2 text-sm text-brick">
            {failure}
          </p>
        )}
        <div className="mt-3 flex gap-3">
          <Button type="submit" look="accent" disabled={formState.isSubmitting}>
            Make the project
          </Button>
          {first !== undefined && <Button onClick={() => void navigate(address.coverage(first.key))}>Cancel</Button>}
        </div>
      </form>
      <FromFolder name={typeof name === 'string' ? name : ''} projectKey={key} />
    </Cover>
  );
}
