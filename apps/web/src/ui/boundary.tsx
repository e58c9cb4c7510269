import { Component, type ReactNode } from 'react';

interface Props {
  /** Shown in place of what failed; `again` tries it anew. */
  fallback: (again: () => void) => ReactNode;
  /** Another one means other contents: they are tried. */
  of?: unknown;
  children: ReactNode;
}

interface State {
  failed: boolean;
  of: unknown;
}

/** Catches what fails inside it, so that the rest of the screen goes on. */
class Boundary extends Component<Props, State> {
  override state: State = { failed: false, of: this.props.of };

  static getDerivedStateFromError(): Partial<State> {
    return { failed: true };
  }

  static getDerivedStateFromProps({ of }: Props, state: State): Partial<State> | null {
    return of === state.of ? null : { failed: false, of };
  }

  override render(): ReactNode {
    const again = (): void => this.setState({ failed: false });
    return this.state.failed ? this.props.fallback(again) : this.props.children;
  }
}

/** A drawing or a part of a page that may fail by itself. */
export const Part = ({
  name,
  of,
  className = '',
  children,
}: {
  /** As it is called in “… failed”: “The drawing”. */
  name: string;
  of?: unknown;
  className?: string;
  children: ReactNode;
}) => (
  <Boundary
    of={of}
    fallback={(again) => (
      <div role="alert" className={`p-5 ${className}`}>
        <p className="mb-1 font-medium text-outside">{name} failed.</p>
        <p className="mb-2 text-quiet">The rest works, and your edits are kept.</p>
        <button type="button" className="underline underline-offset-4" onClick={again}>
          Try again
        </button>
      </div>
    )}
  >
    {children}
  </Boundary>
);

/** A line of a list; what fails in it leaves its name, and its menu beside it. */
export const Line = ({
  name,
  of,
  children,
}: {
  name: string;
  of: unknown;
  children: ReactNode;
}) => (
  <Boundary of={of} fallback={() => <BrokenLine name={name} why="It cannot be shown." />}>
    {children}
  </Boundary>
);

/** A line for what is there and cannot be read. */
export const BrokenLine = ({ name, why }: { name: string; why: string }) => (
  <span className="flex min-w-0 flex-1 flex-wrap items-baseline gap-x-6 px-2 py-3">
    <span className="min-w-0 flex-1 basis-64">
      <span className="block truncate text-[17px] font-medium">{name}</span>
      <span className="block truncate text-quiet" title={why}>
        {why}
      </span>
    </span>
    <span className="w-64 text-outside sm:text-right">cannot be read</span>
  </span>
);
