import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, call } from "../api/client";
import { Button } from "../parts/Button";
import { longDate } from "../parts/dates";
import { ChoiceWord, DayWord, Word } from "../parts/Word";

type Values = Record<string, string | undefined>;

/** Which records are listed: whose, of what, from when, with which words. */
export function TrailSentence({ values, change }: { values: Values; change: (next: Values) => void }) {
  const people = useQuery({ queryKey: ["names"], queryFn: () => call(api.GET("/api/people/names")) });
  const deeds = useQuery({ queryKey: ["deeds"], queryFn: () => call(api.GET("/api/trail/deeds")) });
  const who = people.data?.find((one) => String(one.id) === values.person)?.name;
  return (
    <>
      What{" "}
      <ChoiceWord
        name="Who"
        text={who ?? "anybody"}
        value={values.person ?? ""}
        choices={[
          { value: "", text: "anybody" },
          { value: "0", text: "nobody, or the clock" },
          ...(people.data ?? []).map((one) => ({ value: String(one.id), text: one.name })),
        ]}
        onChange={(person) => change({ person: person || undefined, at: undefined })}
      />{" "}
      did:{" "}
      <ChoiceWord
        name="Deed"
        text={values.deed ?? "anything"}
        value={values.deed ?? ""}
        choices={[
          { value: "", text: "anything" },
          ...(deeds.data ?? []).map((deed) => ({ value: deed, text: deed })),
        ]}
        onChange={(deed) => change({ deed: deed || undefined, at: undefined })}
      />
      , from{" "}
      <DayWord
        name="From"
        text={values.from ? longDate(values.from) : "the beginning"}
        value={values.from ?? ""}
        none="From the beginning"
        onChange={(from) => change({ from, at: undefined })}
      />{" "}
      to{" "}
      <DayWord
        name="Until"
        text={values.until ? longDate(values.until) : "now"}
        value={values.until ?? ""}
        none="Until now"
        onChange={(until) => change({ until, at: undefined })}
      />
      , with <TextWord text={values.text} onChange={(text) => change({ text, at: undefined })} />.
    </>
  );
}

function TextWord({ text, onChange }: { text?: string; onChange: (text: string | undefined) => void }) {
  const [typed, setTyped] = useState(text ?? "");
  return (
    <Word name="Words" text={text ? `“${text}”` : "any words"}>
      {(close) => (
        <form
          className="flex gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            onChange(typed.trim() || undefined);
            close();
          }}
        >
          <input
            aria-label="Words in the record"
            autoFocus
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
          <Button type="submit">Find</Button>
        </form>
      )}
    </Word>
  );
}
