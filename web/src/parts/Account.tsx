/** An account as it is shown, such as “routing 990073053, account ••••1238”: whatever room there is, its last digits stay. */
export function Account({ words }: { words: string }) {
  const digits = words.lastIndexOf(" ") + 1;
  return (
    <span className="text-faint flex min-w-0 gap-1">
      <span className="truncate">{words.slice(0, digits).trim()}</span>
      <span className="shrink-0">{words.slice(digits)}</span>
    </span>
  );
}
