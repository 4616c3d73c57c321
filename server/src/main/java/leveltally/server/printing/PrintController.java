package leveltally.server.printing;

import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.ClaimId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.checks.Checks;
import leveltally.server.checks.Series;
import leveltally.server.frame.MoneyView;
import leveltally.server.frame.Needs;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.payments.Payments;
import leveltally.server.people.People;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Turns, runs, answers and the tray. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class PrintController {
    private final Printing printing;
    private final Turns turns;
    private final Batches batches;
    private final ClaimRows claimRows;
    private final Payments payments;
    private final Checks checks;
    private final BankAccounts accounts;
    private final Series series;
    private final People people;
    private final StandInPrinter standIn;
    private final JdbcClient jdbc;

    PrintController(
            Printing printing,
            Turns turns,
            Batches batches,
            ClaimRows claimRows,
            Payments payments,
            Checks checks,
            BankAccounts accounts,
            Series series,
            People people,
            StandInPrinter standIn,
            JdbcClient jdbc) {
        this.printing = printing;
        this.turns = turns;
        this.batches = batches;
        this.claimRows = claimRows;
        this.payments = payments;
        this.checks = checks;
        this.accounts = accounts;
        this.series = series;
        this.people = people;
        this.standIn = standIn;
        this.jdbc = jdbc;
    }

    @Schema(requiredProperties = {"serial", "holder", "mine", "forThisBatch", "idleMinutes", "idle"})
    record TurnView(long serial, String holder, boolean mine, boolean forThisBatch, long idleMinutes, boolean idle) {}

    /** {@code outcome} is what lies in the stand-in's tray: PRINTED, SMEARED, TORN, BLANK; absent before. */
    /** A payment without a number; {@code why} says what keeps it behind, empty when nothing does. */
    @Schema(requiredProperties = {"claim", "payee", "amount", "why"})
    record UnnumberedView(long claim, String payee, String amount, String why) {}

    /** Remittance advice, on plain paper; {@code pages} of all its payments together. */
    @Schema(requiredProperties = {"run", "sent", "payments", "pages"})
    record AdviceView(long run, boolean sent, int payments, int pages) {}

    @Schema(requiredProperties = {"document", "claim", "number", "payee", "amount", "pages", "why", "posted"})
    record SheetView(
            long document,
            long claim,
            long number,
            String payee,
            String amount,
            int pages,
            @Nullable String outcome,
            @Nullable Answer answer,
            String why,
            boolean posted) {}

    @Schema(requiredProperties = {"run", "sent", "madeBy", "sheets"})
    record RunView(long run, boolean sent, String madeBy, List<SheetView> sheets) {}

    @Schema(
            requiredProperties = {
                "account",
                "accountName",
                "nextNumber",
                "toNumber",
                "toNumberAmount",
                "unnumbered",
                "advices",
                "blanks",
                "unanswered",
                "runs",
                "printable"
            })
    record PrintingView(
            long account,
            String accountName,
            long nextNumber,
            @Nullable TurnView turn,
            int toNumber,
            String toNumberAmount,
            List<UnnumberedView> unnumbered,
            List<AdviceView> advices,
            int blanks,
            int unanswered,
            boolean printable,
            List<RunView> runs) {}

    record TakeTurn(long batch, @NotNull @Size(max = 200) String reason) {}

    record TurnSerial(long serial) {}

    record PrintRequest(
            long turn,
            long firstNumber,
            @NotNull @Size(max = 200) String reason) {}

    record AnswerRequest(
            long document,
            @NotNull Answer answer,
            @NotNull @Size(max = 200) String why) {}

    record AnswersRequest(@NotEmpty @Valid List<AnswerRequest> answers) {}

    record FaultRequest(@NotNull StandInPrinter.Fault fault, int sheet) {}

    @GetMapping("/batches/{id}/printing")
    PrintingView state(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        Batch batch = batches.get(new BatchId(id));
        BankAccount account = accounts.get(batch.account());
        var paid = payments.claims(batch.id());
        var again = checks.withoutNumber(batch.id());
        var waiting = claimRows.of(batch.id()).stream()
                .filter(c -> !paid.contains(c.id()) || again.containsKey(c.id()))
                .toList();
        Map<ClaimId, Printing.Behind> behind = printing.behind(batch.id());
        boolean printable = batch.state() == BatchState.APPROVED || batch.state() == BatchState.NUMBERED;
        var ready = waiting.stream().filter(c -> !behind.containsKey(c.id())).toList();
        var amount = leveltally.core.money.Money.sum(
                ready.stream().map(c -> c.amount()).toList(), account.currency());
        List<RunView> runs = runs(id);
        int unanswered = 0;
        for (RunView run : runs) {
            unanswered +=
                    (int) run.sheets().stream().filter(s -> s.answer() == null).count();
        }
        return new PrintingView(
                account.id().value(),
                account.name(),
                series.of(batch.way()).nextNumber(),
                turn(by, account, id),
                printable ? ready.size() : 0,
                amount.toString(),
                printable
                        ? waiting.stream()
                                .map(c -> new UnnumberedView(
                                        c.id().value(),
                                        c.remitTo().payee(),
                                        c.amount().toString(),
                                        behind.containsKey(c.id())
                                                ? behind.get(c.id()).why()
                                                : ""))
                                .toList()
                        : List.of(),
                advices(id),
                blanks(id),
                unanswered,
                printable,
                runs);
    }

    private @Nullable TurnView turn(Actor by, BankAccount account, long batch) {
        return turns.current(account.id())
                .map(turn -> new TurnView(
                        turn.serial(),
                        people.names().getOrDefault(turn.person(), "Somebody"),
                        turn.person() == by.person().value(),
                        turn.batch().value() == batch,
                        Duration.between(turn.lastDeedAt(), by.now()).toMinutes(),
                        turn.idleAt(by.now())))
                .orElse(null);
    }

    private List<RunView> runs(long batch) {
        Map<Long, RunView> runs = new LinkedHashMap<>();
        jdbc.sql("""
                        SELECT r.id AS run_id, r.sent_at, m.name AS made_by, d.id, n.number, p.payee, d.amount_minor,
                          d.currency, d.pages, t.outcome, d.answer, d.answer_why, p.posted_entry_id, p.claim_id
                        FROM print_run r JOIN person m ON m.id = r.made_by
                        JOIN document d ON d.run_id = r.id JOIN check_number n ON n.id = d.check_number_id
                        JOIN payment p ON p.id = d.payment_id LEFT JOIN tray_sheet t ON t.document_id = d.id
                        WHERE r.batch_id = :batch AND d.kind = 'CHECK' ORDER BY r.made_at, r.id, d.position
                        """)
                .param("batch", batch)
                .query((r, n) -> {
                    RunView run = runs.get(r.getLong("run_id"));
                    if (run == null) {
                        run = new RunView(
                                r.getLong("run_id"),
                                r.getTimestamp("sent_at") != null,
                                r.getString("made_by"),
                                new ArrayList<>());
                        runs.put(run.run(), run);
                    }
                    String answer = r.getString("answer");
                    run.sheets()
                            .add(new SheetView(
                                    r.getLong("id"),
                                    r.getLong("claim_id"),
                                    r.getLong("number"),
                                    r.getString("payee"),
                                    MoneyView.of(r.getLong("amount_minor"), r.getString("currency"))
                                            .text(),
                                    r.getInt("pages"),
                                    r.getString("outcome"),
                                    answer == null ? null : Answer.valueOf(answer),
                                    r.getString("answer_why"),
                                    r.getLong("posted_entry_id") != 0));
                    return run;
                })
                .list();
        return new ArrayList<>(runs.values());
    }

    private List<AdviceView> advices(long batch) {
        return jdbc.sql("""
                        SELECT r.id, r.sent_at IS NOT NULL, COUNT(*), SUM(d.pages) FROM print_run r
                        JOIN document d ON d.run_id = r.id WHERE r.batch_id = :batch AND r.kind = 'ADVICE'
                        GROUP BY r.id ORDER BY r.id
                        """)
                .param("batch", batch)
                .query((r, n) -> new AdviceView(r.getLong(1), r.getBoolean(2), r.getInt(3), r.getInt(4)))
                .list();
    }

    private int blanks(long batch) {
        return jdbc.sql("""
                        SELECT COUNT(*) FROM document d JOIN print_run r ON r.id = d.run_id
                        JOIN check_number n ON n.id = d.check_number_id
                        WHERE r.batch_id = :batch AND d.answer = 'BLANK' AND n.state = 'TAKEN' AND d.kind = 'CHECK'
                          AND NOT EXISTS (SELECT 1 FROM document e
                            WHERE e.check_number_id = d.check_number_id AND e.kind = d.kind AND e.serial > d.serial)
                        """).param("batch", batch).query(Integer.class).single();
    }

    @PostMapping("/bank-accounts/{account}/turn")
    @Needs(Deed.PRINT)
    TurnView takeTurn(Actor by, @PathVariable long account, @Valid @RequestBody TakeTurn wanted) {
        Turns.Turn turn = turns.take(by, new BankAccountId(account), new BatchId(wanted.batch()), wanted.reason());
        return new TurnView(turn.serial(), by.name(), true, true, 0, false);
    }

    @PostMapping("/bank-accounts/{account}/turn/renew")
    @Needs(Deed.PRINT)
    void renew(Actor by, @PathVariable long account, @RequestBody TurnSerial turn) {
        turns.renew(by, new BankAccountId(account), turn.serial());
    }

    @PostMapping("/bank-accounts/{account}/turn/give-back")
    @Needs(Deed.PRINT)
    void giveBack(Actor by, @PathVariable long account, @RequestBody TurnSerial turn) {
        turns.giveBack(by, new BankAccountId(account), turn.serial());
    }

    /** Records the numbers, then hands the run to the printer. A crash between the two loses neither. */
    @PostMapping("/batches/{id}/print")
    @Needs(Deed.PRINT)
    PrintingView print(Actor by, @PathVariable long id, @Valid @RequestBody PrintRequest wanted) {
        send(
                by,
                printing.number(by, new BatchId(id), wanted.turn(), wanted.firstNumber(), wanted.reason())
                        .run());
        return state(by, id);
    }

    /** Hands over a run whose numbers were recorded before a break; safe to repeat. */
    @PostMapping("/batches/{id}/runs/{run}/send")
    @Needs(Deed.PRINT)
    PrintingView sendAgain(Actor by, @PathVariable long id, @PathVariable long run) {
        send(by, run);
        return state(by, id);
    }

    @PostMapping("/batches/{id}/print-blanks")
    @Needs(Deed.PRINT)
    PrintingView printBlanks(Actor by, @PathVariable long id) {
        send(by, printing.printBlanks(by, new BatchId(id)));
        return state(by, id);
    }

    private void send(Actor by, long run) {
        if (printing.markSent(by, run)) {
            printing.handOver(run);
        }
    }

    record Release(
            @NotEmpty @Size(max = 5_000) List<Long> documents,
            @NotNull @Size(max = 200) String why) {}

    /** Sheets that stayed blank and are not printed on their numbers: those are unaccounted from now on. */
    @PostMapping("/batches/{id}/release-blanks")
    @Needs(Deed.PRINT)
    PrintingView releaseBlanks(Actor by, @PathVariable long id, @Valid @RequestBody Release wanted) {
        printing.releaseBlanks(by, new BatchId(id), new HashSet<>(wanted.documents()), wanted.why());
        return state(by, id);
    }

    /** {@code spoiled}: the paper is destroyed; otherwise it stayed blank or is lost. */
    record TakeOutPayments(
            @NotEmpty @Size(max = 5_000) List<Long> claims,
            boolean spoiled,
            @NotNull @Size(max = 200) String why) {}

    /** Takes payments out until they are posted; their invoices come free. */
    @PostMapping("/batches/{id}/take-out-payments")
    @Needs(Deed.PRINT)
    PrintingView takeOut(Actor by, @PathVariable long id, @Valid @RequestBody TakeOutPayments wanted) {
        printing.takeOut(
                by,
                new BatchId(id),
                wanted.claims().stream().map(ClaimId::new).collect(Collectors.toSet()),
                wanted.spoiled(),
                wanted.why());
        return state(by, id);
    }

    @PostMapping("/batches/{id}/answers")
    @Needs(Deed.PRINT)
    PrintingView answer(Actor by, @PathVariable long id, @Valid @RequestBody AnswersRequest wanted) {
        printing.answer(
                by,
                new BatchId(id),
                wanted.answers().stream()
                        .map(a -> new Printing.Said(a.document(), a.answer(), a.why()))
                        .toList());
        return state(by, id);
    }

    /** A sheet as it lies in the tray, marked as no check. */
    @GetMapping("/documents/{document}/page")
    PageView page(Actor by, @PathVariable long document) {
        by.mayDo(Deed.READ);
        return PageView.of(printing.trayPage(document));
    }

    @GetMapping(value = "/runs/{run}/copy.pdf", produces = MediaType.APPLICATION_PDF_VALUE)
    ResponseEntity<byte[]> copy(Actor by, @PathVariable long run) {
        by.mayDo(Deed.READ);
        return ResponseEntity.ok()
                .header("Content-Disposition", "inline; filename=\"copy-of-run-" + run + ".pdf\"")
                .body(printing.copy(run));
    }

    /** Makes the stand-in printer's next job go wrong; only the stand-in has this. */
    @PostMapping("/bank-accounts/{account}/stand-in-printer")
    @Needs(Deed.PRINT)
    void fault(Actor by, @PathVariable long account, @Valid @RequestBody FaultRequest wanted) {
        by.mayDo(Deed.PRINT);
        standIn.arm(accounts.get(new BankAccountId(account)).id(), wanted.fault(), wanted.sheet());
    }
}
