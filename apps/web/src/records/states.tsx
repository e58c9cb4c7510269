import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { isMissing, sentence } from './api.js';

/** A whole screen that says one thing and what to do next. */
export function Said({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <main className="mx-auto flex max-w-xl flex-col gap-3 px-6 py-24">
      <h1 className="text-2xl font-semibold">{title}</h1>
      <div className="text-quiet">{children}</div>
    </main>
  );
}

/** The way out of a screen that has nothing else to offer. */
export const BackTo = ({ to, children }: { to: string; children: ReactNode }) => (
  <Link to={to} className="font-medium text-ink underline underline-offset-4">
    {children}
  </Link>
);

export const toJobs = <BackTo to="/jobs">Go to the jobs</BackTo>;

export const NotFound = () => (
  <Said title="There is nothing at this address.">
    <p className="mb-4">The link may be old or mistyped.</p>
    {toJobs}
  </Said>
);

export const Failed = () => (
  <Said title="This screen failed.">
    <p className="mb-4">
      Your edits are kept in this browser. Reload the page once the server answers; if it fails
      again, open another station.
    </p>
    {toJobs}
  </Said>
);

/** While something is fetched; a wait of some length has a way back. */
export const Loading = ({ message }: { message: string | null }) => (
  <Said title={message ? 'Waiting for the server.' : 'Opening …'}>
    {message && (
      <>
        <p role="status" className="mb-4">
          {message} Trying again.
        </p>
        {toJobs}
      </>
    )}
  </Said>
);

/** In place of a page whose document is not here: not yet, or not at all. */
export const Unopened = ({ error }: { error: unknown }) =>
  isMissing(error) ? <NotFound /> : <Loading message={error ? sentence(error) : null} />;
