import { lazy, type ComponentType } from "react";
import { NotFetched } from "./frame/Boundary";

// one module of many pages is named once: each name costs the first load
const reports = () => import("./reports/ReportPage");
const record = () => import("./outside/RecordPage").then((m) => m.RecordPage);
const direct = () => import("./direct/DirectPage").then((m) => m.DirectPage);

/** Each address with the page that stands at it; a page is fetched when it is visited first. */
const PAGES: Record<string, () => Promise<ComponentType>> = {
  "/due": () => import("./selection/DueStation").then((m) => m.DueStation),
  "/batches": () => import("./batches/BatchesStation").then((m) => m.BatchesStation),
  "/batches/:id": () => import("./batches/BatchPage").then((m) => m.BatchPage),
  "/batches/:id/list": () => reports().then((m) => m.PaymentsListPage),
  "/approval": () => import("./approval/ApprovalStation").then((m) => m.ApprovalStation),
  "/approval/:id": () => import("./approval/ApprovalPage").then((m) => m.ApprovalPage),
  "/print": () => import("./printing/PrintStation").then((m) => m.PrintStation),
  "/print/:id": () => import("./printing/PrintPage").then((m) => m.PrintPage),
  "/file/:id": () => import("./electronic/FilingPage").then((m) => m.FilingPage),
  "/wires/:id": () => import("./wires/WiresPage").then((m) => m.WiresPage),
  "/print/:id/register": () => reports().then((m) => m.RunRegisterPage),
  "/batches/:id/posted": () => reports().then((m) => m.PostingRegisterPage),
  "/batches/:id/jobs": () => reports().then((m) => m.PostingJobsPage),
  "/batches/:id/recap": () => reports().then((m) => m.PostingRecapPage),
  "/closing": () => reports().then((m) => m.ClosingPage),
  "/aging": () => reports().then((m) => m.AgingPage),
  "/aging/documents": () => reports().then((m) => m.OpenDocumentsPage),
  "/outstanding": () => reports().then((m) => m.OutstandingPage),
  "/unclaimed": () => reports().then((m) => m.UnclaimedPage),
  "/reportable": () => reports().then((m) => m.ReportablePage),
  "/reportable/changed": () => import("./reports/EarlierYearsPage").then((m) => m.EarlierYearsPage),
  "/post": () => import("./posting/PostStation").then((m) => m.PostStation),
  "/bank": () => import("./bankfiles/BankStation").then((m) => m.BankStation),
  "/bank/paid": () => import("./clearing/ClearingPage").then((m) => m.ClearingPage),
  "/bank/told": () => import("./clearing/MovementsPage").then((m) => m.MovementsPage),
  "/bank/files": () => import("./electronic/PaymentFilesPage").then((m) => m.PaymentFilesPage),
  "/bank/notices": () => import("./clearing/NoticesPage").then((m) => m.NoticesPage),
  "/bank/reconciled": () => import("./clearing/ReconcilePage").then((m) => m.ReconcilePage),
  "/bank/exchange": () => import("./exchange/ExchangePage").then((m) => m.ExchangePage),
  "/bank/practice": () => import("./exchange/PracticePage").then((m) => m.PracticePage),
  "/register": () => import("./checks/RegisterPage").then((m) => m.RegisterPage),
  "/undo": () => import("./voiding/UndoPage").then((m) => m.UndoPage),
  "/undo/:id": () => import("./voiding/AskedPage").then((m) => m.AskedPage),
  "/outside": () => import("./outside/OutsidePage").then((m) => m.OutsidePage),
  "/outside/new": record,
  "/outside/:batch": record,
  "/direct/new": direct,
  "/direct/:batch": direct,
  "/schedules": () => import("./direct/SchedulesPage").then((m) => m.SchedulesPage),
  "/stale": () => import("./contacts/StalePage").then((m) => m.StalePage),
  "/vendors": () => import("./vendors/VendorsPage").then((m) => m.VendorsPage),
  "/vendors/:id": () => import("./vendors/VendorPage").then((m) => m.VendorPage),
  "/vendors/:id/paid": () => import("./reports/PaidToPage").then((m) => m.PaidToPage),
  "/vendors/new": () => import("./vendors/NewVendor").then((m) => m.NewVendor),
  "/enter": () => import("./invoices/EnterInvoice").then((m) => m.EnterInvoice),
  "/invoices/:id": () => import("./invoices/InvoicePage").then((m) => m.InvoicePage),
  "/bring-in": () => import("./imports/ImportsPage").then((m) => m.ImportsPage),
  "/ledger": () => import("./ledger/LedgerPage").then((m) => m.LedgerPage),
  "/proof": () => import("./proof/ProofPage").then((m) => m.ProofPage),
  "/routes": () => import("./approval/RoutesPage").then((m) => m.RoutesPage),
  "/deputies": () => import("./approval/DeputiesPage").then((m) => m.DeputiesPage),
  "/trail": () => import("./audit/TrailPage").then((m) => m.TrailPage),
  "/mail": () => import("./mail/MailPage").then((m) => m.MailPage),
  "/company": () => import("./company/CompanyPage").then((m) => m.CompanyPage),
  "/bank-layouts": () => import("./bankfiles/LayoutsPage").then((m) => m.LayoutsPage),
  "/bank-accounts": () => import("./setup/BankAccountsPage").then((m) => m.BankAccountsPage),
  "/bank-accounts/:id": () => import("./setup/BankAccountPage").then((m) => m.BankAccountPage),
  "/layouts/:id": () => import("./paper/LayoutPage").then((m) => m.LayoutPage),
  "/printers": () => import("./printers/PrintersPage").then((m) => m.PrintersPage),
  "/setup": () => import("./setup/SetupPage").then((m) => m.SetupPage),
  "/people": () => import("./people/PeoplePage").then((m) => m.PeoplePage),
  "/own": () => import("./people/OwnPage").then((m) => m.OwnPage),
};

export const VIEWS = Object.entries(PAGES).map(([path, fetched]) => ({
  path,
  View: lazy(async () => {
    try {
      return { default: await fetched() };
    } catch (missing) {
      throw new NotFetched(String(missing));
    }
  }),
}));

/** Fetches the other pages while nothing else is done, so that the next one opens at once and without the server. */
export function fetchTheRest() {
  const idle = window.requestIdleCallback?.bind(window) ?? ((then: () => void) => setTimeout(then, 2_000));
  idle(() => {
    // what fails here is asked for again by whoever visits it, and said there
    for (const fetched of Object.values(PAGES)) void fetched().catch(() => undefined);
  });
}
