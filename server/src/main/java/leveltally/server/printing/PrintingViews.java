package leveltally.server.printing;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.checks.NumberState;
import leveltally.core.checks.Stock;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printers.Outcome;
import leveltally.core.printing.Answer;
import leveltally.core.vendors.Delivery;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.Deliveries;
import leveltally.server.checks.NumberSeries;
import leveltally.server.checks.Series;
import leveltally.server.checks.StockRoom;
import leveltally.server.frame.MoneyView;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.people.People;
import leveltally.server.printers.CompanyPrinter;
import leveltally.server.printers.PrinterView;
import leveltally.server.printers.Printers;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads where the printing of a batch stands. */
@Component
class PrintingViews {
    private final WaitingClaims waitingClaims;
    private final Turns turns;
    private final Batches batches;
    private final BankAccounts accounts;
    private final Series series;
    private final People people;
    private final Printers printers;
    private final HandoverRows rows;
    private final Deliveries deliveries;
    private final StockRoom stock;
    private final JdbcClient jdbc;

    PrintingViews(
            WaitingClaims waitingClaims,
            Turns turns,
            Batches batches,
            BankAccounts accounts,
            Series series,
            People people,
            Printers printers,
            HandoverRows rows,
            Deliveries deliveries,
            StockRoom stock,
            JdbcClient jdbc) {
        this.waitingClaims = waitingClaims;
        this.turns = turns;
        this.batches = batches;
        this.accounts = accounts;
        this.series = series;
        this.people = people;
        this.printers = printers;
        this.rows = rows;
        this.deliveries = deliveries;
        this.stock = stock;
        this.jdbc = jdbc;
    }

    @Transactional(readOnly = true)
    PrintingView of(Actor by, BatchId id) {
        by.mayDo(Deed.READ);
        Batch batch = batches.get(id);
        BankAccount account = accounts.get(batch.account());
        WaitingClaims.Waiting waiting = waitingClaims.of(id, by.today());
        boolean printable = batch.state() == BatchState.APPROVED || batch.state() == BatchState.NUMBERED;
        List<Claim> ready = waiting.ready();
        Money amount = Money.sum(ready.stream().map(Claim::amount).toList(), account.currency());
        Map<ClaimId, Delivery> deliveries = this.deliveries.of(id);
        Map<Long, PrintingView.PrinterAnswerView> given = given(id.value());
        List<PrintingView.RunView> runs = runs(id.value(), given, deliveries);
        int unanswered = 0;
        for (PrintingView.RunView run : runs) {
            unanswered +=
                    (int) run.sheets().stream().filter(s -> s.answer() == null).count();
        }
        NumberSeries numbers = series.of(batch.way());
        List<CompanyPrinter> usable = printers.inUse();
        return new PrintingView(
                account.id().value(),
                account.name(),
                numbers.nextNumber(),
                numbers.sameNumberReprint(),
                numbers.stock() == Stock.NUMBERED,
                numbers.loading(),
                stock.of(numbers.id()).foretold(numbers.nextNumber()),
                usable.stream().map(PrinterView::of).toList(),
                rows.usual(by, batch.way().value())
                        .filter(used -> usable.stream().anyMatch(one -> one.id().equals(used)))
                        .orElse(usable.get(0).id())
                        .value(),
                turn(by, account, id.value()),
                printable ? ready.size() : 0,
                amount.toString(),
                printable
                        ? waiting.claims().stream()
                                .map(c -> new PrintingView.UnnumberedView(
                                        c.id().value(),
                                        c.remitTo().payee(),
                                        c.amount().toString(),
                                        goes(deliveries, c.id()),
                                        waiting.why(c.id())))
                                .toList()
                        : List.of(),
                advices(id.value(), given),
                onOwnNumber(id.value()),
                unanswered,
                printable,
                runs);
    }

    private PrintingView.@Nullable TurnView turn(Actor by, BankAccount account, long batch) {
        return turns.current(account.id())
                .map(turn -> new PrintingView.TurnView(
                        turn.serial(),
                        people.names().getOrDefault(turn.person().value(), "Somebody"),
                        turn.person().equals(by.person()),
                        turn.batch().value() == batch,
                        Duration.between(turn.lastDeedAt(), by.now()).toMinutes(),
                        turn.isIdle(by.now())))
                .orElse(null);
    }

    private List<PrintingView.RunView> runs(
            long batch, Map<Long, PrintingView.PrinterAnswerView> given, Map<ClaimId, Delivery> deliveries) {
        Map<Long, PrintingView.RunView> runs = new LinkedHashMap<>();
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
                    PrintingView.RunView run = runs.get(r.getLong("run_id"));
                    if (run == null) {
                        run = new PrintingView.RunView(
                                r.getLong("run_id"),
                                r.getTimestamp("sent_at") != null,
                                r.getString("made_by"),
                                new ArrayList<>(),
                                given.get(r.getLong("run_id")));
                        runs.put(run.run(), run);
                    }
                    String answer = r.getString("answer");
                    run.sheets()
                            .add(new PrintingView.SheetView(
                                    r.getLong("id"),
                                    r.getLong("claim_id"),
                                    r.getLong("number"),
                                    r.getString("payee"),
                                    MoneyView.of(r.getLong("amount_minor"), r.getString("currency"))
                                            .text(),
                                    goes(deliveries, new ClaimId(r.getLong("claim_id"))),
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

    private static String goes(Map<ClaimId, Delivery> deliveries, ClaimId claim) {
        return deliveries.getOrDefault(claim, Delivery.MAIL).words();
    }

    private List<PrintingView.AdviceView> advices(long batch, Map<Long, PrintingView.PrinterAnswerView> given) {
        return jdbc.sql("""
                        SELECT r.id, r.sent_at IS NOT NULL AS sent, COUNT(*) AS items, SUM(d.pages) AS pages FROM print_run r
                        JOIN document d ON d.run_id = r.id WHERE r.batch_id = :batch AND r.kind = 'ADVICE'
                        GROUP BY r.id ORDER BY r.id
                        """)
                .param("batch", batch)
                .query((r, n) -> new PrintingView.AdviceView(
                        r.getLong("id"),
                        r.getBoolean("sent"),
                        r.getInt("items"),
                        r.getInt("pages"),
                        given.get(r.getLong("id"))))
                .list();
    }

    /** The last time each run of a batch was given to a printer. */
    private Map<Long, PrintingView.PrinterAnswerView> given(long batch) {
        Map<Long, PrintingView.PrinterAnswerView> given = new HashMap<>();
        jdbc.sql("""
                        SELECT h.run_id, p.name, h.outcome, h.said, h.job, h.at FROM handing_over h
                        JOIN print_run r ON r.id = h.run_id JOIN printer p ON p.id = h.printer_id
                        WHERE r.batch_id = :batch ORDER BY h.id
                        """).param("batch", batch).query((java.sql.ResultSet r) -> {
            String known = r.getString("outcome");
            Outcome outcome = known == null ? Outcome.NOT_KNOWN : Outcome.valueOf(known);
            given.put(
                    r.getLong("run_id"),
                    new PrintingView.PrinterAnswerView(
                            r.getString("name"),
                            outcome,
                            words(r.getString("name"), outcome, r.getString("said"), r.getString("job")),
                            r.getTimestamp("at").toInstant()));
        });
        return given;
    }

    private static String words(String printer, Outcome outcome, String said, String job) {
        String as = job.isEmpty() ? "" : " as job " + job;
        String why = said.isEmpty() ? "" : ": " + said;
        return printer + " " + outcome.words() + as + why + ".";
    }

    private int onOwnNumber(long batch) {
        return jdbc.sql("""
                        SELECT COUNT(*) FROM document d JOIN print_run r ON r.id = d.run_id
                        JOIN check_number n ON n.id = d.check_number_id
                        WHERE r.batch_id = :batch AND d.answer IN (:keeping) AND n.state = :taken AND d.kind = 'CHECK'
                          AND NOT EXISTS (SELECT 1 FROM document e
                            WHERE e.check_number_id = d.check_number_id AND e.kind = d.kind AND e.serial > d.serial)
                        """)
                .param("batch", batch)
                .param(
                        "keeping",
                        Arrays.stream(Answer.values())
                                .filter(Answer::keepsNumber)
                                .map(Answer::name)
                                .toList())
                .param("taken", NumberState.TAKEN.name())
                .query(Integer.class)
                .single();
    }
}
