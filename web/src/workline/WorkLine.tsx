import { lazy, Suspense, useEffect, useState } from "react";
import { NavLink } from "react-router";
import { longDate } from "../parts/dates";
import { singleKeys } from "../parts/singleKeys";
import { useWork } from "./Amount";
import { useSession } from "../frame/session";
import { Menu } from "./Menu";
import { STATIONS } from "./places";
import { Search } from "./Search";

// not there before somebody asks for it; the search is, because one types on while it opens
const Keys = lazy(() => import("./Keys").then((m) => ({ default: m.Keys })));

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
        to="/"
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
              title={
                station &&
                `${station.counted}: ${station.count === 0 ? "none" : `${station.count}, ${station.amounts.map((a) => `${a.text} ${a.currency}`).join(" and ")}`}`
              }
            >
              <span className="whitespace-nowrap">
                <b>{title}</b>
                {station?.look && <span className="text-brass text-note"> {station.look}</span>}
              </span>
              <span className="text-faint text-note whitespace-nowrap">
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
          className="bg-sheet border-hair text-faint flex h-6 w-48 items-center justify-between border px-2 text-note whitespace-nowrap max-[640px]:h-8 max-[640px]:w-auto"
          onClick={() => setSearching(true)}
        >
          <span>Find anything</span>
          <kbd className="font-sans max-[640px]:hidden">Ctrl K</kbd>
        </button>
        <div className="flex items-center gap-2 text-note">
          <span className="text-faint max-[640px]:hidden">{longDate(session.today)}</span>
          <Menu onKeys={() => setKeys(true)} />
        </div>
      </div>
      <Search open={searching} onClose={() => setSearching(false)} onKeys={() => setKeys(true)} />
      <Suspense>{keys && <Keys open onClose={() => setKeys(false)} />}</Suspense>
    </header>
  );
}
