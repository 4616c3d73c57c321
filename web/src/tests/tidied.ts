import { cleanup } from "@testing-library/react";
import { afterEach } from "vitest";

// the page is one for all tests: none finds what another left
afterEach(() => {
  cleanup();
  sessionStorage.clear();
  localStorage.clear();
});
