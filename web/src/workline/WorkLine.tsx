import { DropdownMenu } from "radix-ui";
import { lazy, Suspense, useEffect, useState } from "react";
import { NavLink, useNavigate } from "react-router";
import { longDate } from "../parts/dates";
import { singleKeys } from "../parts/singleKeys";
import { useWork } from "./Amount";
import { useSession } from "../frame/session";
import { Search } from "./Search";
import { useSignOut } from "../people/useSignOut";

// not there before somebody asks for it; the search is, because one types on while it opens
const Keys = lazy(() => import("./Keys").then((m) => ({ default: m.Keys })));

const STATIONS = [
  { key: "due", title: "Due" },
  { key: "batches", title: "Batches" },
  { key: "approval", title: "Approval" },
  { key: "print", title: "Print" },
  { key: "post", title: "Post" },
  { key: "bank", title: "Bank" },
];
const PAGES: { to: string; title: string; roles?: string[] }[] = [
  { to: "/register", title: "Register" },
  { to: "/vendors", title: "Vendors" },
  { to: "/enter", title: "Enter an invoice" },
  { to: "/bring-in", title: "Bring in files" },
  { to: "/ledger", title: "Ledger" },
  { to: "/proof", title: "Proof" },
  { to: "/routes", title: "Routes of approval" },
  { to: "/deputies", title: "Deputies" },
  { to: "/mail", title: "Mail" },
  { to: "/trail", title: "Trail", roles: ["CONTROLLER", "AUDITOR", "ADMINISTRATOR"] },
  { to: "/company", title: "Company", roles: ["CONTROLLER", "AUDITOR", "ADMINISTRATOR"] },
  { to: "/people", title: "People", roles: ["ADMINISTRATOR", "CONTROLLER"] },
  { to: "/own", title: "Your sessions and password" },
];

/** The six stations in the order of the work, each with what waits there: the navigation and the state of the day. */
export function WorkLine() {
  const session = useSession();
  const [searching, setSearching] = useState(false);
  const [keys, setKeys] = useState(false);
  const work = useWork();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = (event.target as HTMLElement).matches("input, textarea, select");
      if (event.key.toLowerCase() === "k" && (event.ctrlKey || event.metaKey)) {
        event.preventDefault();
        setSearching(true);
      } else if (event.key === "?" && !typing && singleKeys()) {
        setKeys(true);
      } else if (event.key === "F6") {
        event.preventDefault();
        const slip = document.querySelector<HTMLElement>("[data-slip]");
        const list = document.querySelector<HTMLElement>("[data-list]");
        (slip?.contains(document.activeElement) ? list : slip)?.focus();
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  return (
    <header className="border-ink no-print flex h-14 shrink-0 items-stretch border-b max-[640px]:h-auto max-[640px]:flex-wrap">
      <NavLink
        to="/due"
        className="flex items-center gap-2 pr-4 pl-5 text-lg font-bold max-[640px]:min-h-11 max-[640px]:pl-4"
      >
        <img src="/level.svg" alt="" className="h-7 w-7" />
        <span className="max-[1180px]:sr-only">Level Tally</span>
      </NavLink>
      <nav
        aria-label="Stations"
        className="flex min-w-0 flex-1 overflow-x-auto [scrollbar-width:none] max-[640px]:order-last max-[640px]:h-12 max-[640px]:flex-none max-[640px]:basis-full max-[640px]:border-t"
      >
        {STATIONS.map(({ key, title }) => {
          const station = work.data?.stations.find((s) => s.station === key);
          const first = station?.amounts[0];
          const more = (station?.amounts.length ?? 0) > 1;
          return (
            <NavLink
              key={key}
              to={`/${key}`}
              className={({ isActive }) =>
                `border-ink flex min-w-[92px] shrink-0 flex-col justify-center border-l px-3 leading-tight ${isActive ? "bg-sheet shadow-[inset_0_-4px_0_var(--ink)]" : ""}`
              }
              title={station?.amounts.map((a) => `${a.text} ${a.currency}`).join(" and ")}
            >
              <span className="font-bold">{title}</span>
              <span className="text-faint text-[13px] whitespace-nowrap">
                {station === undefined
                  ? "…"
                  : station.count === 0
                    ? "nothing waits"
                    : `${station.count} · ${first?.text ?? ""}${more ? " +" : ""}`}
              </span>
            </NavLink>
          );
        })}
      </nav>
      <div className="flex shrink-0 flex-col items-end justify-center gap-0.5 pr-4 pl-2 max-[640px]:ml-auto max-[640px]:flex-row max-[640px]:items-center max-[640px]:gap-3">
        <button
          type="button"
          className="bg-sheet border-hair text-faint flex h-6 w-48 items-center justify-between border px-2 text-[13px] whitespace-nowrap max-[640px]:h-8 max-[640px]:w-auto"
          onClick={() => setSearching(true)}
        >
          <span>Find anything</span>
          <kbd className="font-sans max-[640px]:hidden">Ctrl K</kbd>
        </button>
        <div className="flex items-center gap-2 text-[13px]">
          <span className="text-faint max-[640px]:hidden">{longDate(session.today)}</span>
          <Menu onKeys={() => setKeys(true)} />
        </div>
      </div>
      <Search open={searching} onClose={() => setSearching(false)} />
      <Suspense>{keys && <Keys open onClose={() => setKeys(false)} />}</Suspense>
    </header>
  );
}

function Menu({ onKeys }: { onKeys: () => void }) {
  const session = useSession();
  const navigate = useNavigate();
  const leaving = useSignOut();
  const item = "data-highlighted:bg-cursor flex min-h-8 items-center px-3 outline-none";
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="min-h-6 font-semibold whitespace-nowrap">
        {session.name}
        <span className="max-[640px]:hidden">
          , {session.roles.map((role) => role.toLowerCase()).join(", ")}
        </span>{" "}
        <span aria-hidden>▾</span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" className="bg-sheet border-ink z-30 min-w-48 border py-1">
          {PAGES.filter(
            (page) => !page.roles || session.roles.some((role) => page.roles!.includes(role)),
          ).map((page) => (
            <DropdownMenu.Item key={page.to} className={item} onSelect={() => navigate(page.to)}>
              {page.title}
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Separator className="border-hair my-1 border-t" />
          <DropdownMenu.Item className={item} onSelect={onKeys}>
            Keys <kbd className="text-faint ml-auto">?</kbd>
          </DropdownMenu.Item>
          <DropdownMenu.Item className={item} onSelect={() => void leaving.run()}>
            Sign out
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
