import { cleanup, configure } from "@testing-library/react";
import { afterEach } from "vitest";

// a busy machine may take its time; no test waits for this
configure({ asyncUtilTimeout: 10_000 });

// the page is one for all tests: none finds what another left
afterEach(() => {
  cleanup();
  sessionStorage.clear();
  localStorage.clear();
});
