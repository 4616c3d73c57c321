import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { TrailOf } from "../audit/TrailOf";
import { Figure, Station } from "../frame/Station";
import { ChoiceEntry, Entry, Form } from "../parts/Form";
import { Loaded } from "../parts/Loaded";
import { useKeptForm } from "../parts/useKeptForm";
import { Logo } from "./Logo";

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
              <CompanyForm company={data} />
            </div>
          }
          slip={
            <>
              {data.name && <Logo company={data} />}
              <h2 className="mb-2 text-base font-bold">What was changed</h2>
              <TrailOf key={data.version} subject="company 1" />
            </>
          }
        />
      )}
    </Loaded>
  );
}

const MONTHS = [
  "January",
  "February",
  "March",
  "April",
  "May",
  "June",
  "July",
  "August",
  "September",
  "October",
  "November",
  "December",
].map((text, i) => ({ value: String(i + 1), text }));

function CompanyForm({ company }: { company: Company }) {
  const queries = useQueryClient();
  // what was typed and why it was refused stay, also when somebody else changed the company meanwhile
  const form = useKeptForm(
    "company",
    asTyped(company),
    (typed) =>
      call(
        api.POST("/api/company", {
          body: {
            name: typed.name,
            address: typed.address.split("\n"),
            // what is no number is refused at its field, never read as nothing
            graceDays: whole(typed.graceDays),
            staleDays: whole(typed.staleDays),
            zone: typed.zone,
            firstMonth: Number(typed.firstMonth),
            oneTimeByTwo: typed.oneTimeByTwo === "yes",
            version: company.version,
          },
        }),
      ),
    {
      done: async (kept) => {
        queries.setQueryData(KEY, kept);
        await queries.invalidateQueries();
      },
      failed: () => queries.invalidateQueries({ queryKey: KEY }),
      said: () => "The company is as you typed it. What was printed or posted stays as it was.",
    },
  );
  return (
    <div className="max-w-xl">
      <Form
        form={form}
        label="Company"
        deed={company.name ? "Change the company" : "Set up the company"}
        leave="Leave it as it was"
        readOnly={!company.mayChange}
      >
        <Entry name="name" label="Name" />
        <Entry
          name="address"
          rows={4}
          label="Address, line by line, as it stands in the corner of every check"
        />
        <div className="grid grid-cols-2 items-end gap-4 max-[640px]:grid-cols-1">
          <Entry
            name="graceDays"
            inputMode="numeric"
            label="Grace days: a discount is still taken so long after its date"
          />
          <Entry
            name="staleDays"
            inputMode="numeric"
            label="A check is stale after so many days outstanding"
          />
          <Entry
            name="zone"
            placeholder="Europe/Berlin"
            label="Time zone of the business day; empty: the machine’s"
          />
          <ChoiceEntry name="firstMonth" choices={MONTHS} label="The year of account begins with" />
          <ChoiceEntry
            name="oneTimeByTwo"
            label="The address of a payee who is paid once by check"
            choices={[
              { value: "yes", text: "a second person confirms it" },
              { value: "no", text: "whoever approves the payment sees it" },
            ]}
          />
        </div>
        <p className="text-faint">
          Grace days count for lists and drafts from now on; a draft keeps its amounts until it is edited, and
          what is approved, printed or posted stays as it was. The smallest payment, the floor and the runs
          are each bank account’s own.
        </p>
      </Form>
      {!company.mayChange && (
        <p className="text-faint mt-4">A controller or an administrator changes this.</p>
      )}
    </div>
  );
}

function asTyped(company: Company) {
  return {
    name: company.name,
    address: company.address.join("\n"),
    graceDays: String(company.graceDays),
    staleDays: String(company.staleDays),
    zone: company.zone,
    firstMonth: String(company.firstMonth),
    oneTimeByTwo: company.oneTimeByTwo ? "yes" : "no",
  };
}

function whole(text: string): number {
  return /^\d{1,6}$/.test(text.trim()) ? Number(text) : -1;
}
