import { Menu, MenuButton, MenuItems } from '@headlessui/react';
import { FileText } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { download, tellFailure } from '../api/index.ts';
import { CarryDialog } from '../files/index.ts';
import { address, useFrame } from '../frame/index.ts';
import type { Listing } from '../listing/index.ts';
import { countOf, MenuLine } from '../look/index.ts';

/** Features from and to files: those of the list as it is filtered now. */
export function FeatureFiles({ listing: { list } }: { readonly listing: Pick<Listing<'feature'>, 'list'> }) {
  const { project, canEdit } = useFrame();
  const navigate = useNavigate();
  const [carrying, setCarrying] = useState(false);
  const ids = list?.map((l) => l.head.id) ?? [];
  const words = ids.length === 1 ? 'the feature of the list' : `the ${countOf(ids.length, 'feature')} of the list`;
  const save = (): void => void download('exportFeatures', { params: { project }, body: { of: { ids }, form: 'file' } }).catch(tellFailure);
  return (
    <>
      <Menu>
        <MenuButton aria-label="Features from and to files" title="Import and export" className="grid size-8 shrink-0 place-items-center rounded-panel border border-rule2 bg-page hover:bg-page2">
          <FileText size={15} aria-hidden="true" />
        </MenuButton>
        <MenuItems anchor={{ to: 'bottom end', gap: 4 }} className="z-50 w-72 rounded-panel border border-rule2 bg-page py-1.5 text-sm focus:outline-none">
          {canEdit && (
            <MenuLine onPick={() => void navigate(address.importingFeatures(project))}>Import features</MenuLine>
          )}
          <MenuLine disabled={ids.length === 0} onPick={save}>Save {words} as {ids.length === 1 ? 'its file' : 'a zip of files'}</MenuLine>
          <div className="mx-4 my-1 border-t border-rule" />
          <MenuLine disabled={ids.length === 0} onPick={() => setCarrying(true)}>Carry {words} to another project</MenuLine>
        </MenuItems>
      </Menu>
      {carrying && <CarryDialog of={{ ids }} words={words} onClose={() => setCarrying(false)} />}
    </>
  );
}
