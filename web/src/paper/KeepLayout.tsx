import { useQueryClient } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { DayEntry, Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";
import type { Layout } from "./measures";

/** Keeps what was made as the next version, in force from a day. */
export function KeepLayout({
  page,
  draft,
  onClose,
}: {
  page: Schemas["LayoutPage"];
  draft: { layout: Layout; newest: number; onto: (newest: number) => void; leave: () => void };
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const { today } = useSession();
  const form = useKeptForm(
    `keep layout ${page.series}`,
    { from: today, why: "" },
    ({ from, why }) =>
      call(
        api.POST("/api/series/{id}/layouts", {
          params: { path: { id: page.series } },
          body: { layout: draft.layout, from, why, newest: draft.newest },
        }),
      ),
    {
      done: async () => {
        onClose();
        draft.leave();
        await queries.invalidateQueries();
      },
      // whoever looked at what was kept meanwhile may keep theirs as the next
      failed: async (refused) => {
        if (refused.code !== "changed-meanwhile") return;
        await queries.invalidateQueries({ queryKey: ["layouts", page.series] });
        draft.onto(
          queries.getQueryData<Schemas["LayoutPage"]>(["layouts", page.series])?.newest ?? draft.newest,
        );
      },
      said: ({ version }) => `Version ${version} is kept. What was printed before stays as it is.`,
    },
  );
  return (
    <Form form={form} label="Keep the layout" deed="Keep it" onClose={onClose}>
      <p>
        Checks are printed on it from its first day on. The versions before stay, and each of them can be made
        the next one again.
      </p>
      <DayEntry name="from" label="In force from" />
      <Entry name="why" label="What changed, for the trail" rows={2} maxLength={500} autoFocus />
    </Form>
  );
}
