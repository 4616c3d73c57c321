import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it } from "vitest";
import { typedBy, useKept } from "./useKept";

function Note({ of }: { of: string }) {
  const [text, type, forget] = useKept<string>(`note ${of}`, "as it is kept");
  return (
    <>
      <input aria-label="Note" value={text} onChange={(event) => type(event.target.value)} />
      <button type="button" onClick={forget}>
        Done
      </button>
    </>
  );
}

const note = () => screen.getByLabelText<HTMLInputElement>("Note").value;

describe("what is typed", () => {
  afterEach(() => {
    cleanup();
    sessionStorage.clear();
  });

  it("is there again after a step elsewhere and a reload, each thing its own, until it is done with", async () => {
    const user = userEvent.setup();
    const { rerender } = render(<Note of="A" />);
    await user.type(screen.getByLabelText("Note"), "!");
    rerender(<Note of="B" />);
    expect(note()).toBe("as it is kept");
    rerender(<Note of="A" />);
    expect(note()).toBe("as it is kept!");
    cleanup();
    render(<Note of="A" />);
    expect(note()).toBe("as it is kept!");
    await user.click(screen.getByRole("button", { name: "Done" }));
    expect(note()).toBe("as it is kept");
  });

  it("is not found by somebody else who sits down at the same tab", async () => {
    typedBy(1);
    render(<Note of="A" />);
    await userEvent.type(screen.getByLabelText("Note"), "!");
    cleanup();
    typedBy(1);
    render(<Note of="A" />);
    expect(note()).toBe("as it is kept!");
    cleanup();
    typedBy(2);
    render(<Note of="A" />);
    expect(note()).toBe("as it is kept");
  });
});
