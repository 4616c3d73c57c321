import { Component, type ReactNode } from "react";
import { Button } from "../parts/Button";

/** A page whose script did not come. */
export class NotFetched extends Error {}

/** Keeps a fault of one page to that page: the rest stays, and what was saved is saved. */
export class Boundary extends Component<{ children: ReactNode }, { fault?: "fetching" | "showing" }> {
  override state: { fault?: "fetching" | "showing" } = {};

  static getDerivedStateFromError(error: unknown) {
    return { fault: error instanceof NotFetched ? "fetching" : "showing" };
  }

  override render() {
    if (!this.state.fault) return this.props.children;
    return (
      <div role="alert" className="flex flex-col items-start gap-3 p-8">
        <p>
          {this.state.fault === "fetching"
            ? "This page did not come: the server is not there, or was renewed since you began. Nothing was done."
            : "This page stumbled over something. What was saved is saved; what was only typed here may be gone."}
        </p>
        <Button look="deed" onClick={() => window.location.reload()}>
          Load it again
        </Button>
      </div>
    );
  }
}
