import { useQuery } from "@tanstack/react-query";
import { Command } from "cmdk";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, call } from "../api/client";

/** Finds any vendor, invoice, check or batch. */
export function Search({ open, onClose }: { open: boolean; onClose: () => void }) {
  const [text, setText] = useState("");
  const [chosen, setChosen] = useState("");
  const navigate = useNavigate();
  const found = useQuery({
    queryKey: ["search", text],
    enabled: open && text.trim().length > 1,
    queryFn: () => call(api.GET("/api/search", { params: { query: { text } } })),
  });
  const hits = found.data ?? [];
  const keys = hits.map((hit) => hit.kind + hit.address + hit.title);
  return (
    <Command.Dialog
      // the first hit is chosen until an arrow key chooses another
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
        onValueChange={setText}
        placeholder="Vendor, invoice, check number or batch"
        className="w-full border-0 border-b p-3 text-base"
      />
      <Command.List className="max-h-96 overflow-auto p-1">
        {text.trim().length > 1 && found.data?.length === 0 && (
          <Command.Empty className="text-faint p-3">Nothing holds “{text}”.</Command.Empty>
        )}
        {hits.map((hit) => (
          <Command.Item
            key={hit.kind + hit.address + hit.title}
            value={hit.kind + hit.address + hit.title}
            onSelect={() => {
              onClose();
              navigate(hit.address);
            }}
            className="data-[selected=true]:bg-cursor flex min-h-8 items-center gap-3 px-3"
          >
            <span className="text-faint w-16 text-[13px]">{hit.kind}</span>
            <span className="font-semibold">{hit.title}</span>
            <span className="text-faint ml-auto text-[13px]">{hit.detail}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command.Dialog>
  );
}
