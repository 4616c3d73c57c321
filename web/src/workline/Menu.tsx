import { DropdownMenu } from "radix-ui";
import { useNavigate } from "react-router";
import { useSession } from "../frame/session";
import { useSignOut } from "../people/useSignOut";
import { GROUPS, mayGo } from "./places";

/** What stands behind one's name: pages in groups, the keys, and the way out. */
export function Menu({ onKeys }: { onKeys: () => void }) {
  const session = useSession();
  const navigate = useNavigate();
  const leaving = useSignOut();
  const item = "data-highlighted:bg-cursor flex min-h-8 items-center px-3 outline-none";
  const label = "text-faint px-3 pt-1 text-note";
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
        <DropdownMenu.Content
          align="end"
          className="bg-sheet border-ink z-30 max-h-[calc(100vh-64px)] min-w-56 overflow-auto border py-1"
        >
          {GROUPS.map((group) => (
            <DropdownMenu.Group key={group.title} className="border-hair border-b pb-1">
              <DropdownMenu.Label className={label}>{group.title}</DropdownMenu.Label>
              {group.places
                .filter((place) => mayGo(place, session.roles))
                .map((place) => (
                  <DropdownMenu.Item key={place.to} className={item} onSelect={() => navigate(place.to)}>
                    {place.title}
                  </DropdownMenu.Item>
                ))}
            </DropdownMenu.Group>
          ))}
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
