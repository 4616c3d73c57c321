import { useQuery } from "@tanstack/react-query";
import { Command } from "cmdk";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, call } from "../api/client";
import { useSession } from "../frame/session";
import { useSignOut } from "../people/useSignOut";
import { placesFor } from "./places";

/** Something that can be chosen: a thing that was found, a page, or a deed. */
interface Choice {
  key: string;
  kind: string;
  title: string;
  detail: string;
  run: () => unknown;
}

/** Finds any vendor, invoice, payment, check or batch, and does anything that stands in the menu. */
export function Search({
  open,
  onClose,
  onKeys,
}: {
  open: boolean;
  onClose: () => void;
  onKeys: () => void;
}) {
  const [text, setText] = useState("");
  const [chosen, setChosen] = useState("");
  const navigate = useNavigate();
  const session = useSession();
  const leaving = useSignOut();
  const found = useQuery({
    queryKey: ["search", text],
    enabled: open && text.trim().length > 1,
    queryFn: ({ signal }) => call(api.GET("/api/search", { params: { query: { text } }, signal })),
  });
  const deeds: Choice[] = [
    { key: "keys", kind: "Do", title: "Keys", detail: "", run: onKeys },
    { key: "sign out", kind: "Do", title: "Sign out", detail: "", run: () => void leaving.run() },
  ].filter((deed) => deed.title.toLowerCase().startsWith(text.trim().toLowerCase()));
  const places = placesFor(text, session.roles).map((place): Choice => ({
    key: place.to,
    kind: "Go to",
    title: place.title,
    detail: "",
    run: () => navigate(place.to),
  }));
  const things = (text.trim().length > 1 ? (found.data ?? []) : []).map((hit): Choice => ({
    key: hit.kind + hit.address + hit.title,
    kind: hit.kind,
    title: hit.title,
    detail: hit.detail,
    run: () => navigate(hit.address),
  }));
  // what one looks for by a name of ours comes before what only holds the word
  const choices = [...places, ...things, ...deeds];
  const keys = choices.map((choice) => choice.key);
  return (
    <Command.Dialog
      // the first is chosen until an arrow key chooses another
      value={keys.includes(chosen) ? chosen : (keys[0] ?? "")}
      onValueChange={setChosen}
      open={open}
      onOpenChange={(next) => !next && onClose()}
      label="Find"
      shouldFilter={false}
      overlayClassName="bg-scrim fixed inset-0 z-30"
      contentClassName="bg-sheet border-ink fixed top-20 left-1/2 z-40 w-[94vw] max-w-xl -translate-x-1/2 border"
    >
      <Command.Input
        value={text}
        onValueChange={(next) => {
          setText(next);
          setChosen("");
        }}
        placeholder="Vendor, reference, entry, check number, amount, batch, or a page"
        className="w-full border-0 border-b p-3 text-base"
      />
      <Command.List className="max-h-96 overflow-auto p-1">
        {text.trim().length > 1 && found.error && (
          <p role="alert" className="text-rust p-3">
            {found.error.message}
          </p>
        )}
        {text.trim().length > 1 && found.data?.length === 0 && places.length === 0 && (
          <Command.Empty className="text-faint p-3">Nothing is called “{text}”.</Command.Empty>
        )}
        {choices.map((choice) => (
          <Command.Item
            key={choice.key}
            value={choice.key}
            onSelect={() => {
              onClose();
              setText("");
              void choice.run();
            }}
            className="data-[selected=true]:bg-cursor flex min-h-8 items-center gap-3 px-3"
          >
            <span className="text-faint w-16 shrink-0 text-note">{choice.kind}</span>
            <span className="font-semibold">{choice.title}</span>
            <span className="text-faint ml-auto text-right text-note">{choice.detail}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command.Dialog>
  );
}
