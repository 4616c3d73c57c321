import { useQuery } from "@tanstack/react-query";
import { Navigate, Route, Routes, useLocation } from "react-router";
import { api, call, Refused } from "../api/client";
import { ApprovalPage } from "../approval/ApprovalPage";
import { ApprovalStation } from "../approval/ApprovalStation";
import { DeputiesPage } from "../approval/DeputiesPage";
import { RoutesPage } from "../approval/RoutesPage";
import { TrailPage } from "../audit/TrailPage";
import { BankStation } from "../bankfiles/BankStation";
import { BatchPage } from "../batches/BatchPage";
import { BatchesStation } from "../batches/BatchesStation";
import { RegisterPage } from "../checks/RegisterPage";
import { DueStation } from "../due/DueStation";
import { ImportsPage } from "../imports/ImportsPage";
import { EnterInvoice } from "../invoices/EnterInvoice";
import { LedgerPage } from "../ledger/LedgerPage";
import { MailPage } from "../mail/MailPage";
import { OwnPage, Password } from "../people/OwnPage";
import { PeoplePage } from "../people/PeoplePage";
import { SignIn } from "../people/SignIn";
import { PostStation } from "../posting/PostStation";
import { PrintPage } from "../printing/PrintPage";
import { PrintStation } from "../printing/PrintStation";
import { ProofPage } from "../proof/ProofPage";
import { VendorPage } from "../vendors/VendorPage";
import { VendorsPage } from "../vendors/VendorsPage";
import { showInZone } from "../parts/dates";
import { typedBy } from "../parts/useKept";
import { Boundary } from "./Boundary";
import { Connection } from "./Connection";
import { SessionContext } from "./session";
import { WorkLine } from "./WorkLine";

/** Everything, once one is signed in. */
export function App() {
  const place = useLocation().pathname;
  const session = useQuery({
    queryKey: ["session"],
    queryFn: () => call(api.GET("/api/session")),
    staleTime: 60_000,
  });
  if (session.isPending) return null;
  // only the server's own word opens the door; what failed otherwise leaves everything where it is
  if (session.error instanceof Refused && session.error.status === 401) return <SignIn />;
  if (!session.data)
    return (
      <>
        <Connection />
        <p className="p-8">{session.error.message}</p>
      </>
    );
  showInZone(session.data.zone);
  typedBy(session.data.personId);
  if (session.data.mustChangePassword)
    return (
      <main className="mx-auto flex min-h-full max-w-md flex-col justify-center gap-4 p-8">
        <h1 className="text-2xl font-bold">Welcome, {session.data.name}</h1>
        <p>
          Somebody else set your password. Set one that only you know; nothing else can be done before that.
        </p>
        <Password />
      </main>
    );
  return (
    <SessionContext value={session.data}>
      <div className="station flex h-full flex-col">
        <WorkLine />
        <Connection />
        <main className="flex min-h-0 flex-1 flex-col">
          <Boundary key={place}>
            <Routes>
              <Route path="/" element={<Navigate to="/due" replace />} />
              <Route path="/due" element={<DueStation />} />
              <Route path="/batches" element={<BatchesStation />} />
              <Route path="/batches/:id" element={<BatchPage />} />
              <Route path="/approval" element={<ApprovalStation />} />
              <Route path="/approval/:id" element={<ApprovalPage />} />
              <Route path="/print" element={<PrintStation />} />
              <Route path="/print/:id" element={<PrintPage />} />
              <Route path="/post" element={<PostStation />} />
              <Route path="/bank" element={<BankStation />} />
              <Route path="/register" element={<RegisterPage />} />
              <Route path="/vendors" element={<VendorsPage />} />
              <Route path="/vendors/:id" element={<VendorPage />} />
              <Route path="/enter" element={<EnterInvoice />} />
              <Route path="/bring-in" element={<ImportsPage />} />
              <Route path="/ledger" element={<LedgerPage />} />
              <Route path="/proof" element={<ProofPage />} />
              <Route path="/routes" element={<RoutesPage />} />
              <Route path="/deputies" element={<DeputiesPage />} />
              <Route path="/trail" element={<TrailPage />} />
              <Route path="/mail" element={<MailPage />} />
              <Route path="/people" element={<PeoplePage />} />
              <Route path="/own" element={<OwnPage />} />
              <Route path="*" element={<p className="p-8">There is nothing at this address.</p>} />
            </Routes>
          </Boundary>
        </main>
      </div>
    </SessionContext>
  );
}
