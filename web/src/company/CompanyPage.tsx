import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { TrailOf } from "../audit/TrailOf";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { Field } from "../parts/Field";
import { Loaded } from "../parts/Loaded";
import { Refusal } from "../parts/Refusal";
import { useDeed } from "../parts/useDeed";
import { useKept } from "../parts/useKept";

type Company = Schemas["CompanyView"];
const KEY = ["company"];

/** The company as its checks name it, and its policies. */
export function CompanyPage() {
  const company = useQuery({ queryKey: KEY, queryFn: () => call(api.GET("/api/company")) });
  return (
    <Loaded query={company}>
      {(data) => (
        <Station
          title="Company"
          sentence={
            data.name ? (
              <>
                <b>{data.name}</b>, as every check names it, and what holds for all of its payments.
              </>
            ) : (
              <>No company is set up yet: its name and address stand on every check.</>
            )
          }
          answer={
            <>
              <Figure value={data.graceDays}>grace days</Figure>
              <Figure value={data.staleDays}>days until a check is stale</Figure>
            </>
          }
          list={
            <div className="min-h-0 flex-1 overflow-auto px-5 py-4" tabIndex={0} data-list>
              <Form company={data} />
            </div>
          }
          slip={
            <>
              <h2 className="mb-2 text-base font-bold">What was changed</h2>
              <TrailOf key={data.version} subject="company 1" />
            </>
          }
        />
      )}
    </Loaded>
  );
}

function Form({ company }: { company: Company }) {
  const queries = useQueryClient();
  // what was typed and why it was refused stay, also when somebody else changed the company meanwhile
  const [typed, setTyped, forget] = useKept("company", asTyped(company));
  const saving = useDeed(
    () =>
      call(
        api.POST("/api/company", {
          body: {
            name: typed.name,
            address: typed.address.split("\n"),
            // what is no number is refused at its field, never read as nothing
            graceDays: whole(typed.graceDays),
            staleDays: whole(typed.staleDays),
            version: company.version,
          },
        }),
      ),
    {
      done: async (kept) => {
        forget();
        queries.setQueryData(KEY, kept);
        await queries.invalidateQueries();
      },
      failed: () => queries.invalidateQueries({ queryKey: KEY }),
      said: () => "The company is as you typed it. What was printed or posted stays as it was.",
    },
  );
  const said = saving.refused?.fields ?? {};
  const field = (name: keyof typeof typed) => ({
    value: typed[name],
    disabled: !company.mayChange,
    onChange: (event: { target: { value: string } }) => setTyped({ ...typed, [name]: event.target.value }),
  });
  const same = JSON.stringify(typed) === JSON.stringify(asTyped(company));
  return (
    <form
      aria-label="Company"
      className="flex max-w-xl flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        void saving.must().catch(() => undefined);
      }}
    >
      <Field label="Name" finding={said.name}>
        <input {...field("name")} />
      </Field>
      <Field label="Address, line by line, as it stands in the corner of every check" finding={said.address}>
        <textarea rows={4} {...field("address")} />
      </Field>
      <div className="grid grid-cols-2 gap-4 max-[640px]:grid-cols-1">
        <Field label="Grace days: a discount is still taken so long after its date" finding={said.graceDays}>
          <input inputMode="numeric" {...field("graceDays")} />
        </Field>
        <Field label="A check is stale after so many days outstanding" finding={said.staleDays}>
          <input inputMode="numeric" {...field("staleDays")} />
        </Field>
      </div>
      <p className="text-faint">
        Grace days count for lists and drafts from now on; a draft keeps its amounts until it is edited, and
        what is approved, printed or posted stays as it was.
      </p>
      {company.mayChange ? (
        <div className="flex items-center gap-3">
          <Button type="submit" look="deed" disabled={saving.busy || same}>
            {company.name ? "Change the company" : "Set up the company"}
          </Button>
          {!same && (
            <Button
              onClick={() => {
                forget();
                saving.leave();
              }}
            >
              Leave it as it was
            </Button>
          )}
        </div>
      ) : (
        <p className="text-faint">A controller or an administrator changes this.</p>
      )}
      {Object.keys(said).length === 0 && <Refusal deed={saving} />}
    </form>
  );
}

function asTyped(company: Company) {
  return {
    name: company.name,
    address: company.address.join("\n"),
    graceDays: String(company.graceDays),
    staleDays: String(company.staleDays),
  };
}

function whole(text: string): number {
  return /^\d{1,6}$/.test(text.trim()) ? Number(text) : -1;
}
