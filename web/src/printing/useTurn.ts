import { useEffect } from "react";
import { api, call, type Schemas } from "../api/client";
import { useDeed } from "../parts/useDeed";

const RENEW_MS = 60_000;

/** One's own turn at the numbers of an account: taken, renewed while the page is open, given back. */
export function useTurn(
  batch: number,
  printing: Schemas["PrintingView"],
  onPrinted: (next: Schemas["PrintingView"]) => Promise<void>,
) {
  const { turn } = printing;
  const mine = turn?.mine && turn.forThisBatch ? turn : undefined;
  const account = { params: { path: { account: printing.account } } };
  const serial = mine?.serial;
  useEffect(() => {
    if (serial === undefined) return;
    const renew = () =>
      call(
        api.POST("/api/bank-accounts/{account}/turn/renew", {
          params: { path: { account: printing.account } },
          body: { serial },
        }),
      ).catch(() => undefined);
    const timer = setInterval(renew, RENEW_MS);
    return () => clearInterval(timer);
  }, [serial, printing.account]);
  const reload = async () =>
    onPrinted(await call(api.GET("/api/batches/{id}/printing", { params: { path: { id: batch } } })));
  const takeTurn = async (reason: string) => {
    await call(api.POST("/api/bank-accounts/{account}/turn", { ...account, body: { batch: batch, reason } }));
    await reload();
  };
  const givingBack = useDeed(
    () =>
      call(
        api.POST("/api/bank-accounts/{account}/turn/give-back", { ...account, body: { serial: serial! } }),
      ),
    // somebody may have taken it over meanwhile: what is there now is shown either way
    { done: reload, failed: () => reload().catch(() => undefined) },
  );
  return { turn, mine, takeTurn, givingBack };
}
