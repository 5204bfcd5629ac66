import { useRouteError } from 'react-router';
import { Button } from '../ui/button';

/** What is shown when the page itself breaks: the plan is safe, and how to go on. */
export function Trouble() {
  const error = useRouteError();
  const text = error instanceof Error ? error.message : String(error);
  return (
    <main className="mx-auto max-w-xl p-6">
      <h1 className="mb-2 text-large font-bold">Something went wrong on this page</h1>
      <p className="mb-3">
        Your plan is safe: every edit is kept on this device and saved on the server. Reload the page. If it
        fails in the same place, open another stage and save the plan as a file.
      </p>
      <pre className="mb-4 overflow-x-auto border border-scribe bg-paper p-3 text-small whitespace-pre-wrap">
        {text}
      </pre>
      <div className="flex gap-2">
        <Button look="strong" onClick={() => location.reload()}>
          Reload
        </Button>
        <Button onClick={() => location.assign('/')}>All plans</Button>
      </div>
    </main>
  );
}
