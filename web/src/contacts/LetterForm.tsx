import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { Entry, Form } from "../parts/Form";
import { Loaded } from "../parts/Loaded";
import { useKeptForm } from "../parts/useKeptForm";

/** What is written to payees of stale checks. */
export function LetterForm({ onClose }: { onClose: () => void }) {
  const letter = useQuery({
    queryKey: ["contact-letter"],
    queryFn: () => call(api.GET("/api/stale/letter")),
  });
  return <Loaded query={letter}>{(data) => <Words letter={data} onClose={onClose} />}</Loaded>;
}

function Words({ letter, onClose }: { letter: Schemas["LetterView"]; onClose: () => void }) {
  const queries = useQueryClient();
  const form = useKeptForm(
    "contact letter",
    { subject: letter.subject, text: letter.text },
    (typed) => call(api.POST("/api/stale/letter", { body: typed })),
    {
      done: async () => {
        await queries.invalidateQueries({ queryKey: ["contact-letter"] });
        onClose();
      },
      said: () => "Letters and mails are written so from now on.",
    },
  );
  return (
    <Form form={form} label="The letter" deed="Keep the letter" onClose={onClose}>
      <Entry name="subject" label="What it is about" maxLength={120} />
      <Entry name="text" label="What it says, an empty line between paragraphs" rows={10} maxLength={3000} />
      <ul className="text-faint grid grid-cols-2 gap-x-4 text-note">
        {Object.entries(letter.marks ?? {}).map(([mark, becomes]) => (
          <li key={mark}>
            <span className="font-mono">{`{${mark}}`}</span> becomes {becomes}
          </li>
        ))}
      </ul>
    </Form>
  );
}
