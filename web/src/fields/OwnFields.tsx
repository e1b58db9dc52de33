import type { ArtefactId, ArtefactKind } from '@caderno/core/artefacts';
import { missingIn, ownFieldsOf, withOwnValue, type OwnField, type OwnValues } from '@caderno/core/fields';
import { useOwnFields } from '../api/index.ts';
import { MarginNote } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { Section } from '../look/index.ts';
import { OwnInput } from './OwnInput.tsx';

interface Props {
  readonly id: ArtefactId;
  readonly kind: ArtefactKind;
  readonly own: OwnValues;
  readonly canEdit: boolean;
  readonly onChange: (own: OwnValues) => void;
  /** Beside the page, or as a part of it. */
  readonly place: 'margin' | 'page';
}

/** The fields that the project has made for itself, on the page of an artefact. Nothing where it has made none for the kind. */
export function OwnFields({ id, kind, own, canEdit, onChange, place }: Props) {
  const { project } = useFrame();
  const all = useOwnFields(project);
  const fields = ownFieldsOf(all, kind);
  if (fields.length === 0) return null;
  const missing = missingIn(all, kind, own);
  const list = (
    <dl className={place === 'margin' ? 'space-y-1.5' : 'mt-2 grid grid-cols-[repeat(auto-fill,minmax(15rem,1fr))] gap-x-6 gap-y-2'}>
      {fields.map((field) => (
        <div key={field.id}>
          <dt className="text-xs leading-5 text-ink2" title={field.help}>
            {field.name}
            {missing.includes(field) && <span className="ml-1 text-brick">· required</span>}
          </dt>
          <dd>
            <OwnInput field={field} value={own[field.id]} label={`${field.name} of ${id}`} readOnly={!canEdit} onChange={(value) => onChange(withOwnValue(own, field.id, value))} />
            {field.help !== '' && own[field.id] === undefined && <Help field={field} />}
          </dd>
        </div>
      ))}
    </dl>
  );
  return place === 'margin' ? <MarginNote title="Fields">{list}</MarginNote> : <Section title="Fields">{list}</Section>;
}

function Help({ field: { help } }: { readonly field: OwnField }) {
  return <span className="block text-fine leading-4 text-ink2">{help}</span>;
}
