package leveltally.server.batches;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Leaving;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Csv;
import leveltally.server.frame.MoneyView;
import leveltally.server.frame.Needs;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.selection.CandidateRows;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Batches to look at and to edit. */
@RestController
@RequestMapping("/api/batches")
@Needs(Deed.READ)
class BatchController {

    private final Batches batches;
    private final BankAccounts accounts;
    private final BatchViews views;
    private final CandidateRows candidates;
    private final BatchList list;

    BatchController(
            Batches batches, BankAccounts accounts, BatchViews views, CandidateRows candidates, BatchList list) {
        this.batches = batches;
        this.accounts = accounts;
        this.views = views;
        this.candidates = candidates;
        this.list = list;
    }

    /** {@code accounts} are those a line without an invoice names, in words; empty for all others. */
    record LineView(
            long invoice,
            String kind,
            String reference,
            LocalDate invoiceDate,
            LocalDate dueDate,
            String open,
            String gross,
            String discount,
            String credit,
            String cash,
            boolean part,
            boolean byHand,
            boolean hidden,
            boolean ownCheck,
            String held,
            String accounts) {}

    /** {@code held} says why the vendor is held, {@code number} under which it was paid elsewhere; empty when it is not. */
    record ClaimView(
            long id,
            long vendor,
            String payee,
            String address,
            long remitTo,
            String amount,
            boolean apart,
            String stubNote,
            String held,
            String number,
            List<LineView> lines) {}

    /** One step of the draft's life; {@code state} is done, undone or dropped. */
    record EditView(int step, String what, String who, Instant at, String state, String amount) {}

    record BatchView(
            long id,
            long version,
            String name,
            String note,
            long account,
            String accountName,
            String currency,
            String by,
            LocalDate checkDate,
            LocalDate ledgerDate,
            String state,
            String stateWords,
            String preparedBy,
            List<String> hands,
            @Nullable String sentBackReason,
            String amount,
            String saved,
            @Nullable String credited,
            List<ClaimView> claims,
            List<ApprovalView> approvals,
            List<EditView> edits,
            @Nullable String undo,
            @Nullable String redo,
            String order,
            boolean gathered,
            boolean kept,
            String purpose,
            Leaving leaves) {}

    record ApprovalView(
            String who, @Nullable String onBehalfOf, String outcome, String reason, Instant at, boolean counts) {}

    record AddableView(
            long invoice,
            String vendorName,
            String reference,
            LocalDate dueDate,
            MoneyView open,
            @Nullable String inBatch) {}

    /** Batches in any of the states, newest first; all when none is named. */
    @GetMapping
    List<ListedView> list(Actor by, @RequestParam(required = false) List<BatchState> state) {
        by.mayDo(Deed.READ);
        // a blank value names no state
        List<BatchState> named = state == null
                ? List.of()
                : state.stream().filter(Objects::nonNull).toList();
        return list.in(named.isEmpty() ? List.of(BatchState.values()) : named);
    }

    @GetMapping("/{id}")
    BatchView one(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        return views.of(new BatchId(id));
    }

    /** The batches as CSV, all of them. */
    @GetMapping(value = "/csv", produces = Csv.TYPE)
    ResponseEntity<Resource> allAsCsv(Actor by) {
        by.mayDo(Deed.READ);
        return list.csv();
    }

    /** The lines of a batch as CSV. */
    @GetMapping(value = "/{id}/csv", produces = Csv.TYPE)
    ResponseEntity<Resource> csv(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        BatchView batch = views.of(new BatchId(id));
        return Csv.answer(
                "batch-" + id + ".csv",
                List.of(
                        "claim",
                        "payee",
                        "kind",
                        "entry",
                        "reference",
                        "invoice_date",
                        "due_date",
                        "settles",
                        "discount",
                        "credit",
                        "cash",
                        "currency"),
                batch.claims().stream()
                        .flatMap(claim -> claim.lines().stream()
                                .map(line -> List.of(
                                        String.valueOf(claim.id()),
                                        claim.payee(),
                                        line.kind(),
                                        String.valueOf(line.invoice()),
                                        line.reference(),
                                        line.invoiceDate().toString(),
                                        line.dueDate().toString(),
                                        plain(line.gross()),
                                        plain(line.discount()),
                                        plain(line.credit()),
                                        plain(line.cash()),
                                        batch.currency()))));
    }

    private static String plain(String amount) {
        return amount.replace(",", "");
    }

    /** Open invoices that could be added, by vendor name or reference; those in a batch say which. */
    @GetMapping("/{id}/addable")
    List<AddableView> addable(Actor by, @PathVariable long id, @RequestParam(defaultValue = "") String text) {
        by.mayDo(Deed.READ);
        Batch batch = batches.get(new BatchId(id));
        return candidates.matching(text, accounts.get(batch.account()).currency()).stream()
                .map(c -> new AddableView(
                        c.invoice().id().value(),
                        c.payee().name(),
                        c.invoice().reference(),
                        c.invoice().dueDate(),
                        MoneyView.of(c.invoice().open()),
                        c.reservedBy()))
                .toList();
    }
}
