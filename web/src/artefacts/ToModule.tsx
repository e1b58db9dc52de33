import { useState } from 'react';
import { useModules } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, Dialog, TextBox } from '../look/index.ts';

/** Asks for a module to move artefacts to: one that is there, or a new one. */
export function ToModule({ words, onMove, onClose }: { readonly words: string; readonly onMove: (module: string) => void; readonly onClose: () => void }) {
  const { project } = useFrame();
  const modules = useModules(project);
  const [module, setModule] = useState('');
  return (
    <Dialog title={`Move ${words} to a module`} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          onMove(module.trim());
        }}
      >
        <TextBox autoFocus aria-label="Module" list="modules" className="w-full" maxLength={200} placeholder="A module that is there, or a new one" value={module} onChange={setModule} />
        <datalist id="modules">
          {modules.map((m) => (
            <option key={m} value={m} />
          ))}
        </datalist>
        <div className="mt-4 flex gap-3">
          <Button look="accent" type="submit" disabled={module.trim() === ''}>
            Move
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </div>
      </form>
    </Dialog>
  );
}
