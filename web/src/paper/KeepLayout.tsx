import { useQueryClient } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { useSession } from "../frame/session";
import { DayEntry, Entry, Form } from "../parts/Form";
import { useKeptForm } from "../parts/useKeptForm";
import type { Layout } from "./measures";

/** Keeps what was made as the next version, in force from a day. */
export function KeepLayout({
  page,
  layout,
  newest,
  onClose,
  onKept,
}: {
  page: Schemas["LayoutPage"];
  layout: Layout;
  newest: number;
  onClose: () => void;
  onKept: () => void;
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
          body: { layout, from, why, newest },
        }),
      ),
    {
      done: async () => {
        onClose();
        onKept();
        await queries.invalidateQueries();
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
