import { keepPreviousData, useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { Loaded } from "../parts/Loaded";
import { useMemo } from "react";
import { useNavigate } from "react-router";
import { api, call, type Schemas } from "../api/client";
import { Amount } from "../workline/Amount";
import { useAddress } from "../frame/address";
import { useSession } from "../frame/session";
import { Figure, Station } from "../frame/Station";
import { Button } from "../parts/Button";
import { Download } from "../parts/Download";
import { Grid, type Column } from "../parts/Grid";
import { ChoiceWord } from "../parts/Word";

const PAGE = 200;

const COLUMNS: Column<Schemas["ListedVendor"]>[] = [
  { title: "Vendor", width: "minmax(180px,2fr)", cell: (v) => v.name },
  { title: "Number", width: "80px", cell: (v) => <span className="font-mono text-[13px]">{v.number}</span> },
  { title: "Group", width: "minmax(110px,1fr)", cell: (v) => v.group },
  { title: "Priority", width: "56px", right: true, cell: (v) => v.priority },
  { title: "Method", width: "110px", cell: (v) => v.method },
  {
    title: "Held",
    width: "minmax(120px,1fr)",
    cell: (v) => <span className="text-brass text-[13px]">{v.held}</span>,
  },
  { title: "Open", width: "56px", right: true, cell: (v) => v.count },
  {
    title: "Amount",
    width: "120px",
    right: true,
    cell: (v) => <Amount of={v.open} />,
  },
];

/** Every vendor, with what is open. */
export function VendorsPage() {
  const [values, change] = useAddress();
  const navigate = useNavigate();
  const session = useSession();
  const groups = useQuery({
    queryKey: ["vendor-groups"],
    queryFn: () => call(api.GET("/api/vendors/groups")),
  });
  const list = useInfiniteQuery({
    queryKey: ["vendor-list", values.text, values.group],
    initialPageParam: 0,
    queryFn: ({ pageParam }) =>
      call(
        api.GET("/api/vendors/list", {
          params: { query: { text: values.text ?? "", group: values.group, from: pageParam } },
        }),
      ),
    getNextPageParam: (last, pages) => (last.length === PAGE ? pages.length * PAGE : undefined),
    placeholderData: keepPreviousData,
  });
  const rows = useMemo(() => list.data?.pages.flat() ?? [], [list.data]);
  const items = useMemo(() => rows.map((row) => ({ key: String(row.id), row })), [rows]);
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
            <Download path="/api/vendors/csv">all as CSV</Download>
          </span>
        </>
      }
      list={
        <Loaded query={list}>
          {() => (
            <Grid
              label="Vendors"
              items={items}
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
          <span className="text-faint text-[13px]">Enter or a double click opens a vendor’s page.</span>
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
