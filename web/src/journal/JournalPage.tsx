import { Changes } from '../changes/index.ts';
import { useFrame } from '../frame/index.ts';

/** Who changed what and when, in the whole project; each command can be undone. */
export function JournalPage() {
  const { project } = useFrame();
  return (
    <div className="h-full overflow-y-auto px-8 py-6">
      <div className="mx-auto max-w-4xl">
        <h1 className="font-serif text-2xl font-semibold">Journal</h1>
        <p className="mt-1 text-sm text-ink2">Every command on the project, newest first. Undoing takes out that change alone; what came after it stays. Look back to read the whole project as it was right after an entry.</p>
        <Changes project={project} />
      </div>
    </div>
  );
}
