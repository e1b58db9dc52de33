import { useRouteError } from 'react-router';
import { Button, Empty } from '../look/index.ts';

/** Stands in the place of a page that failed; the frame around it goes on. */
export function PageFailed() {
  const error = useRouteError();
  const reload = (): void => window.location.reload();
  if (isOfEarlierRelease(error)) {
    return (
      <Empty title="Caderno was brought up to date" action={<Button look="accent" onClick={reload}>Reload the page</Button>}>
        This page belongs to the one before. What you typed is kept.
      </Empty>
    );
  }
  return (
    <Empty
      title="This page failed"
      action={
        <>
          <Button look="accent" onClick={reload}>Reload the page</Button>
          <Button onClick={() => window.history.back()}>Go back</Button>
        </>
      }
    >
      What you typed is kept. If it happens again, tell whoever looks after Caderno: {error instanceof Error ? error.message.slice(0, 300) : 'nothing more is known'}.
    </Empty>
  );
}

/** A part of the application that is fetched late is no longer there once a newer release has taken its place. Each browser words it in its own way. */
export function isOfEarlierRelease(error: unknown): boolean {
  return error instanceof Error && /dynamically imported module|Importing a module script failed|Unable to preload CSS/i.test(error.message);
}
