import { keepPreviousData, useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useMemo } from "react";
import { useNavigate } from "react-router";
import { api, call, type Schemas } from "../api/client";
import type { paths } from "../api/schema";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { Download } from "../parts/Download";
import { Grid, type Column } from "../parts/Grid";
import { everyPage } from "../parts/PrintedList";
import { useArrangement } from "../parts/useArrangement";
import { ChoiceWord } from "../parts/Word";

const PAGE = 200;
type Order = NonNullable<paths["/api/vendors/list"]["get"]["parameters"]["query"]>["sortedBy"];

const COLUMNS: Column<Schemas["ListedVendor"]>[] = [
  { key: "NAME", sorts: true, title: "Vendor", width: "minmax(180px,2fr)", cell: (v) => v.name },
  {
    key: "NUMBER",
    sorts: true,
    title: "Number",
    width: "80px",
    cell: (v) => <span className="font-mono text-note">{v.number}</span>,
  },
  { key: "GROUP", sorts: true, title: "Group", width: "minmax(110px,1fr)", cell: (v) => v.group },
  { key: "PRIORITY", sorts: true, title: "Priority", width: "56px", right: true, cell: (v) => v.priority },
  { key: "METHOD", sorts: true, title: "Method", width: "110px", cell: (v) => v.method },
  {
    key: "HELD",
    sorts: true,
    title: "Held",
    width: "minmax(120px,1fr)",
    cell: (v) => <span className="text-brass text-note">{v.held}</span>,
  },
  { key: "COUNT", sorts: true, title: "Open", width: "56px", right: true, cell: (v) => v.count },
  {
    key: "OPEN",
    sorts: true,
    title: "Amount",
    width: "minmax(208px,0.8fr)",
    right: true,
    words: (v) => v.open.map((one) => `${one.text} ${one.currency}`).join(" + "),
    cell: (v) => v.open.map((one) => `${one.text} ${one.currency}`).join(" + "),
  },
];

const itemsOf = (rows: Schemas["ListedVendor"][]) => rows.map((row) => ({ key: String(row.id), row }));

/** Every vendor, with what is open. */
export function VendorsPage() {
  const [values, change] = useAddress();
  const navigate = useNavigate();
  const session = useSession();
  const groups = useQuery({
    queryKey: ["vendor-groups"],
    queryFn: () => call(api.GET("/api/vendors/groups")),
  });
  const [{ sortedBy, descending }] = useArrangement("vendors");
  const asked = { text: values.text, group: values.group, sortedBy: sortedBy as Order, descending };
  const list = useInfiniteQuery({
    queryKey: ["vendor-list", asked],
    initialPageParam: 0,
    queryFn: ({ pageParam }) =>
      call(
        api.GET("/api/vendors/list", {
          params: { query: { ...asked, from: pageParam } },
        }),
      ),
    getNextPageParam: (last, pages) => (last.length === PAGE ? pages.length * PAGE : undefined),
    placeholderData: keepPreviousData,
  });
  const rows = useMemo(() => list.data?.pages.flat() ?? [], [list.data]);
  const items = useMemo(() => itemsOf(rows), [rows]);
  return (
    <Station
      title="Vendors"
      sentence={
        <>
          Vendors of{" "}
          <ChoiceWord
            name="Vendor group"
            text={values.group ?? "every group"}
            value={values.group ?? ""}
            choices={[
              { value: "", text: "every group" },
              ...(groups.data ?? []).map((g) => ({ value: g, text: g })),
            ]}
            onChange={(group) => change({ group: group || undefined, at: undefined })}
          />{" "}
          whose name or number holds{" "}
          <input
            aria-label="Name or number"
            className="min-h-7 w-44 py-0 text-base"
            value={values.text ?? ""}
            placeholder="anything"
            onChange={(event) => change({ text: event.target.value || undefined, at: undefined })}
          />
          .
        </>
      }
      answer={
        <>
          <Figure value={`${rows.length}${list.hasNextPage ? "+" : ""}`}>listed</Figure>
          <span className="ml-auto">
            <Download path="/api/vendors/csv" params={asked} />
          </span>
        </>
      }
      list={
        <Loaded query={list}>
          {() => (
            <Grid
              list="vendors"
              label="Vendors"
              items={items}
              all={async () => itemsOf((await everyPage(list)).flat())}
              columns={COLUMNS}
              cursor={values.at}
              onCursor={(at) => change({ at })}
              onEnter={(key) => navigate(`/vendors/${key}`)}
              onEnd={() => list.hasNextPage && !list.isFetching && void list.fetchNextPage()}
              empty="No vendor fits. Enter one, or bring in a file of them."
            />
          )}
        </Loaded>
      }
      bar={
        <>
          <span className="text-faint text-note">Enter or a double click opens a vendor’s page.</span>
          {session.roles.includes("CLERK") && (
            <Button look="deed" className="ml-auto" onClick={() => navigate("/vendors/new")}>
              New vendor…
            </Button>
          )}
        </>
      }
    />
  );
}
