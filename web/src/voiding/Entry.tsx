/** Lines of an entry in debit and credit columns. */
export function Entry({
  head,
  lines,
}: {
  head: string;
  lines: { account: string; debit: string; credit: string }[];
}) {
  return (
    <table className="border-hair bg-sheet w-full border">
      <thead className="text-faint text-note">
        <tr>
          <th className="px-2 py-1 text-left font-semibold">{head}</th>
          <th className="px-2 text-right font-semibold">Debit</th>
          <th className="px-2 text-right font-semibold">Credit</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((line, i) => (
          <tr key={i} className="border-hair border-t">
            <td className="px-2 py-1">{line.account}</td>
            <td className="px-2 text-right">{line.debit}</td>
            <td className="px-2 text-right">{line.credit}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
