package leveltally.server.batches;

import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.server.frame.MoneyView;
import leveltally.server.invoices.Invoices;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.people.People;
import leveltally.server.selection.CandidateRows;
import leveltally.server.selection.DueQuestion;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Batches to look at and to edit. */
@RestController
@RequestMapping("/api/batches")
class BatchController {
    private static final int MOST_LISTED = 300;

    private final Batches batches;
    private final BankAccounts accounts;
    private final Invoices invoices;
    private final CandidateRows candidates;
    private final People people;
    private final JdbcClient jdbc;

    BatchController(
            Batches batches,
            BankAccounts accounts,
            Invoices invoices,
            CandidateRows candidates,
            People people,
            JdbcClient jdbc) {
        this.batches = batches;
        this.accounts = accounts;
        this.invoices = invoices;
        this.candidates = candidates;
        this.people = people;
        this.jdbc = jdbc;
    }

    record MakeBatch(
            @NotNull @Size(min = 1, max = 80) String name,
            @NotNull @Size(max = 500) String note,
            @NotNull LocalDate ledgerDate,
            int expectedCount,
            @NotNull DueQuestion question) {}

    @Schema(requiredProperties = "id")
    record MadeView(long id) {}

    record Versioned(long version) {}

    record AddLines(long version, @NotEmpty @Size(max = 500) List<Long> invoices) {}

    /** {@code cash} null pays all of it. */
    record PayLine(long version, @Nullable String cash) {}

    @Schema(
            requiredProperties = {
                "id",
                "name",
                "account",
                "state",
                "stateWords",
                "partlyPosted",
                "claims",
                "amount",
                "checkDate",
                "preparedBy",
                "changedAt"
            })
    record ListedView(
            long id,
            String name,
            String account,
            String state,
            String stateWords,
            boolean partlyPosted,
            int claims,
            MoneyView amount,
            LocalDate checkDate,
            String preparedBy,
            Instant changedAt,
            @Nullable Instant sentAt,
            @Nullable String sentBackReason) {}

    @Schema(
            requiredProperties = {
                "invoice",
                "reference",
                "invoiceDate",
                "dueDate",
                "open",
                "gross",
                "discount",
                "cash",
                "part"
            })
    record LineView(
            long invoice,
            String reference,
            LocalDate invoiceDate,
            LocalDate dueDate,
            String open,
            String gross,
            String discount,
            String cash,
            boolean part) {}

    @Schema(requiredProperties = {"id", "vendor", "payee", "amount", "lines"})
    record ClaimView(long id, long vendor, String payee, String amount, List<LineView> lines) {}

    @Schema(
            requiredProperties = {
                "id", "version", "name", "note", "account", "accountName", "currency", "method", "checkDate",
                "ledgerDate", "state", "stateWords", "preparedBy", "hands", "amount", "saved", "claims", "approvals"
            })
    record BatchView(
            long id,
            long version,
            String name,
            String note,
            long account,
            String accountName,
            String currency,
            String method,
            LocalDate checkDate,
            LocalDate ledgerDate,
            String state,
            String stateWords,
            String preparedBy,
            List<String> hands,
            @Nullable String sentBackReason,
            String amount,
            String saved,
            List<ClaimView> claims,
            List<ApprovalView> approvals) {}

    @Schema(requiredProperties = {"who", "outcome", "reason", "at", "counts"})
    record ApprovalView(String who, String outcome, String reason, Instant at, boolean counts) {}

    @Schema(requiredProperties = {"invoice", "vendorName", "reference", "dueDate", "open"})
    record AddableView(
            long invoice,
            String vendorName,
            String reference,
            LocalDate dueDate,
            MoneyView open,
            @Nullable String inBatch) {}

    @PostMapping
    MadeView make(Actor by, @Valid @RequestBody MakeBatch wanted) {
        BatchId id = batches.make(
                by,
                new NewBatch(
                        wanted.name(), wanted.note(), wanted.ledgerDate(), wanted.expectedCount(), wanted.question()));
        return new MadeView(id.value());
    }

    /** Batches in any of the states, newest first; all when none is named. */
    @GetMapping
    List<ListedView> list(Actor by, @RequestParam(required = false) List<BatchState> state) {
        by.mayDo(Deed.READ);
        List<String> states = (state == null || state.isEmpty() ? List.of(BatchState.values()) : state)
                .stream().map(Enum::name).toList();
        return jdbc.sql("""
                        SELECT b.id, b.name, a.name AS account, b.state, a.currency, b.check_date, p.name AS who,
                          b.changed_at, b.sent_at, b.sent_back_reason,
                          (SELECT COUNT(*) FROM claim c WHERE c.batch_id = b.id) AS claims,
                          (SELECT COALESCE(SUM(c.amount_minor), 0) FROM claim c WHERE c.batch_id = b.id) AS amount,
                          (SELECT COUNT(*) FROM payment y WHERE y.batch_id = b.id AND y.posted_entry_id IS NOT NULL) AS posted
                        FROM batch b JOIN bank_account a ON a.id = b.bank_account_id JOIN person p ON p.id = b.prepared_by
                        WHERE b.state IN (:states) ORDER BY b.id DESC LIMIT :limit
                        """)
                .param("states", states)
                .param("limit", MOST_LISTED)
                .query((r, n) -> {
                    BatchState s = BatchState.valueOf(r.getString("state"));
                    var sent = r.getTimestamp("sent_at");
                    return new ListedView(
                            r.getLong("id"),
                            r.getString("name"),
                            r.getString("account"),
                            s.name(),
                            s.words(),
                            s == BatchState.NUMBERED && r.getInt("posted") > 0,
                            r.getInt("claims"),
                            MoneyView.of(r.getLong("amount"), r.getString("currency")),
                            r.getObject("check_date", LocalDate.class),
                            r.getString("who"),
                            r.getTimestamp("changed_at").toInstant(),
                            sent == null ? null : sent.toInstant(),
                            r.getString("sent_back_reason"));
                })
                .list();
    }

    @GetMapping("/{id}")
    BatchView one(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        BatchId wanted = new BatchId(id);
        Batch batch = batches.get(wanted);
        BankAccount account = accounts.get(batch.account());
        List<Claim> claims = batches.claims(wanted);
        Map<InvoiceId, OpenInvoice> open = invoices.open(claims.stream()
                .flatMap(claim -> claim.lines().stream())
                .map(line -> line.invoice())
                .toList());
        Map<Long, String> names = people.names();
        Money amount = Money.sum(claims.stream().map(Claim::amount).toList(), account.currency());
        Money saved = Money.sum(
                claims.stream()
                        .flatMap(claim -> claim.lines().stream())
                        .map(line -> line.discount())
                        .toList(),
                account.currency());
        return new BatchView(
                id,
                batch.version(),
                batch.name(),
                batch.note(),
                account.id().value(),
                account.name(),
                account.currency().getCurrencyCode(),
                batch.method().name(),
                batch.checkDate(),
                batch.ledgerDate(),
                batch.state().name(),
                batch.state().words(),
                names.getOrDefault(batch.preparedBy().value(), "Somebody"),
                batches.hands(wanted).stream()
                        .map(PersonId::value)
                        .map(names::get)
                        .sorted()
                        .toList(),
                batch.sentBackReason(),
                amount.toString(),
                saved.toString(),
                claims.stream().map(claim -> view(claim, open)).toList(),
                approvals(batch));
    }

    private static ClaimView view(Claim claim, Map<InvoiceId, OpenInvoice> open) {
        List<LineView> lines = claim.lines().stream()
                .map(line -> {
                    OpenInvoice invoice = open.get(line.invoice());
                    return new LineView(
                            line.invoice().value(),
                            line.reference(),
                            invoice.invoiceDate(),
                            invoice.dueDate(),
                            invoice.open().toString(),
                            line.gross().toString(),
                            line.discount().isZero() ? "" : line.discount().toString(),
                            line.cash().toString(),
                            line.gross().compareTo(invoice.open()) < 0);
                })
                .toList();
        return new ClaimView(
                claim.id().value(),
                claim.vendor().value(),
                claim.remitTo().payee(),
                claim.amount().toString(),
                lines);
    }

    private List<ApprovalView> approvals(Batch batch) {
        return jdbc.sql("""
                        SELECT p.name, a.outcome, a.reason, a.at, a.round FROM approval a JOIN person p ON p.id = a.person_id
                        WHERE a.batch_id = :batch ORDER BY a.at DESC
                        """)
                .param("batch", batch.id().value())
                .query((r, n) -> new ApprovalView(
                        r.getString(1),
                        r.getString(2),
                        r.getString(3),
                        r.getTimestamp(4).toInstant(),
                        r.getInt(5) == batch.approvalRound()))
                .list();
    }

    /** Open invoices that could be added, by vendor name or reference; those in a batch say which. */
    @GetMapping("/{id}/addable")
    List<AddableView> addable(Actor by, @PathVariable long id, @RequestParam(defaultValue = "") String text) {
        by.mayDo(Deed.READ);
        Batch batch = batches.get(new BatchId(id));
        return candidates.matching(text, accounts.get(batch.account()).currency()).stream()
                .map(c -> new AddableView(
                        c.invoice().id().value(),
                        c.vendorName(),
                        c.invoice().reference(),
                        c.invoice().dueDate(),
                        MoneyView.of(c.invoice().open()),
                        c.reservedBy()))
                .toList();
    }

    @PostMapping("/{id}/lines")
    BatchView add(Actor by, @PathVariable long id, @Valid @RequestBody AddLines wanted) {
        batches.add(
                by,
                new BatchId(id),
                wanted.version(),
                wanted.invoices().stream().map(InvoiceId::new).toList());
        return one(by, id);
    }

    @PostMapping("/{id}/lines/{invoice}/take-out")
    BatchView takeOut(Actor by, @PathVariable long id, @PathVariable long invoice, @RequestBody Versioned at) {
        batches.takeOut(by, new BatchId(id), at.version(), new InvoiceId(invoice));
        return one(by, id);
    }

    @PostMapping("/{id}/lines/{invoice}/pay")
    BatchView pay(Actor by, @PathVariable long id, @PathVariable long invoice, @RequestBody PayLine wanted) {
        batches.pay(by, new BatchId(id), wanted.version(), new InvoiceId(invoice), wanted.cash());
        return one(by, id);
    }

    @PostMapping("/{id}/withdraw")
    BatchView withdraw(Actor by, @PathVariable long id, @RequestBody Versioned at) {
        batches.withdraw(by, new BatchId(id), at.version());
        return one(by, id);
    }
}
