import { Component, type ReactNode } from "react";
import { Button } from "../parts/Button";

/** Keeps a fault of one page to that page: the rest stays, and what was saved is saved. */
export class Boundary extends Component<{ children: ReactNode }, { broken: boolean }> {
  override state = { broken: false };

  static getDerivedStateFromError() {
    return { broken: true };
  }

  override render() {
    if (!this.state.broken) return this.props.children;
    return (
      <div role="alert" className="flex flex-col items-start gap-3 p-8">
        <p>
          This page stumbled over something. What was saved is saved; what was only typed here may be gone.
        </p>
        <Button look="deed" onClick={() => window.location.reload()}>
          Load it again
        </Button>
      </div>
    );
  }
}
