import { Component, Suspense, type ReactNode } from 'react';
import { Button } from './Button';

/**
 * A part of the page that is loaded when it is needed, or that fails by itself: the rest of the
 * page stays, and there is a way on. What waits to be saved outlives a reload.
 */
export class PartBoundary extends Component<
  { children: ReactNode; /** Another value tries the part again. */ part?: string },
  { failed: boolean }
> {
  override state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  override componentDidUpdate(before: { part?: string }) {
    if (before.part !== this.props.part && this.state.failed) this.setState({ failed: false });
  }

  override render() {
    if (!this.state.failed) return <Suspense>{this.props.children}</Suspense>;
    return (
      <div role="alert" className="p-6">
        <p className="font-semibold">This part of the page could not be loaded.</p>
        <p className="mt-1 mb-3 text-dim">
          The server may be away, or have a newer version. Nothing is lost: changes that wait are
          sent after a reload.
        </p>
        <Button main onClick={() => window.location.reload()}>
          Reload the page
        </Button>
      </div>
    );
  }
}
