import { Component, type ReactNode } from 'react';
import { Button } from './button.tsx';
import { Notice } from './notice.tsx';

/** That a script could not be fetched: the connection is gone, or the server has a newer Spur than the page. */
export class NotFetched extends Error {}

interface State {
  readonly fault: unknown;
}
const HOLDS: State = { fault: null };

interface ContainedProps {
  readonly children: ReactNode;
  /** Closes the part, where it lies over the others. */
  readonly onClose?: (() => void) | undefined;
}

/**
 * Keeps what goes wrong in a part of the screen within that part: it says so in its place, and all else goes on. The part is tried again
 * by itself as soon as something else is to be shown in it.
 */
export class Contained extends Component<ContainedProps, State> {
  override state = HOLDS;

  static getDerivedStateFromError(fault: unknown): State {
    return { fault };
  }

  override componentDidUpdate({ children }: ContainedProps, { fault }: State) {
    // What could not be fetched is not there until the page is loaded anew.
    const isWorthATry = fault !== null && !(fault instanceof NotFetched);
    if (isWorthATry && fault === this.state.fault && children !== this.props.children) this.tryAgain();
  }

  readonly tryAgain = () => this.setState(HOLDS);

  override render() {
    const { fault } = this.state;
    const { children, onClose } = this.props;
    if (fault === null) return children;
    return (
      <div
        className={`flex flex-col items-start gap-2 px-4 py-3 ${onClose ? 'fixed inset-x-4 bottom-12 z-50 mx-auto max-w-xl rounded-md bg-raised shadow-sheet' : ''}`}
      >
        <Notice>
          {fault instanceof NotFetched
            ? 'This part of the screen could not be fetched. The connection may be gone, or Spur was updated meanwhile.'
            : 'Something went wrong in this part of the screen. What was saved is safe.'}
        </Notice>
        <div className="flex flex-wrap gap-2">
          {!(fault instanceof NotFetched) && <Button onClick={this.tryAgain}>Try again</Button>}
          <Button onClick={() => window.location.reload()}>Reload the page</Button>
          {onClose && <Button onClick={onClose}>Close</Button>}
        </div>
        {fault instanceof Error && !(fault instanceof NotFetched) && (
          <details className="max-w-full text-small text-quiet">
            <summary>What to report</summary>
            <pre className="overflow-x-auto whitespace-pre-wrap">{fault.stack ?? fault.message}</pre>
          </details>
        )}
      </div>
    );
  }
}
