import { Menu, MenuButton, MenuItems } from '@headlessui/react';
import { FileSpreadsheet } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { CarryDialog, ExportCases } from '../files/index.ts';
import { address, useFrame } from '../frame/index.ts';
import type { Listing } from '../listing/index.ts';
import { countOf, MenuLine } from '../look/index.ts';

/** Cases from and to files: those of the list as it is filtered now. */
export function CaseFiles({ listing: { view, list } }: { readonly listing: Pick<Listing<'case'>, 'view' | 'list'> }) {
  const { project, canEdit } = useFrame();
  const navigate = useNavigate();
  const [open, setOpen] = useState<'export' | 'carry' | null>(null);
  const words = view.query === '' ? `all ${countOf(list?.length ?? 0, 'case')}` : list?.length === 1 ? 'the case of the list' : `the ${countOf(list?.length ?? 0, 'case')} of the list`;
  return (
    <>
      <Menu>
        <MenuButton aria-label="Cases from and to files" title="Import and export" className="grid size-8 shrink-0 place-items-center rounded-panel border border-rule2 bg-page hover:bg-page2">
          <FileSpreadsheet size={15} aria-hidden="true" />
        </MenuButton>
        <MenuItems anchor={{ to: 'bottom end', gap: 4 }} className="z-50 w-72 rounded-panel border border-rule2 bg-page py-1.5 text-sm focus:outline-none">
          {canEdit && (
            <MenuLine onPick={() => void navigate(address.importingCases(project))}>Import cases</MenuLine>
          )}
          <MenuLine disabled={list === undefined || list.length === 0} onPick={() => setOpen('export')}>Export {words}</MenuLine>
          <div className="mx-4 my-1 border-t border-rule" />
          <MenuLine disabled={list === undefined || list.length === 0} onPick={() => setOpen('carry')}>Carry {words} to another project</MenuLine>
          {canEdit && (
            <MenuLine onPick={() => void navigate(address.importingDesign(project))}>Bring in a part of another project</MenuLine>
          )}
        </MenuItems>
      </Menu>
      {open === 'export' && <ExportCases of={{ kind: 'case', query: view.query }} words={words} onClose={() => setOpen(null)} />}
      {open === 'carry' && <CarryDialog of={{ kind: 'case', query: view.query }} words={words} onClose={() => setOpen(null)} />}
    </>
  );
}
