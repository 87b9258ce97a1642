import { Component, type ReactNode } from 'react';
import { Button } from './button.tsx';
import { Notice } from './notice.tsx';

/** That a script could not be fetched: the connection is gone, or the server has a newer Spur than the page. */
export class NotFetched extends Error {}

/** Says in its place that a part of the screen could not be fetched; all else goes on. */
export class Unfetched extends Component<{ readonly children: ReactNode }, { readonly fault: unknown }> {
  override state: { readonly fault: unknown } = { fault: null };

  static getDerivedStateFromError(fault: unknown) {
    return { fault };
  }

  override render() {
    const { fault } = this.state;
    if (fault === null) return this.props.children;
    if (!(fault instanceof NotFetched)) throw fault;
    return (
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2 px-4 py-2">
        <Notice>
          This part of the screen could not be fetched. The connection may be gone, or Spur was updated meanwhile.
        </Notice>
        <Button onClick={() => window.location.reload()}>Reload the page</Button>
      </div>
    );
  }
}
