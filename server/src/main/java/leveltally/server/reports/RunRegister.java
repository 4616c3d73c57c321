package leveltally.server.reports;

import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import leveltally.core.Dates;
import leveltally.core.batches.BatchId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printing.Answer;
import leveltally.core.reports.Report;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What was printed of a batch, run by run and sheet by sheet, with what was said of each. */
@Service
class RunRegister implements ReportSource {
    private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("d MMM yyyy HH:mm 'UTC'", Locale.ENGLISH)
            .withZone(ZoneOffset.UTC);
    private static final List<Report.Head> HEADS = List.of(
            new Report.Head("Number", 12, false),
            new Report.Head("Payee", 34, false),
            new Report.Head("Amount", 16, true),
            new Report.Head("Said of the sheet", 30, false),
            new Report.Head("By", 16, false));

    private final Batches batches;
    private final BankAccounts accounts;
    private final JdbcClient jdbc;

    RunRegister(Batches batches, BankAccounts accounts, JdbcClient jdbc) {
        this.batches = batches;
        this.accounts = accounts;
        this.jdbc = jdbc;
    }

    private record Sheet(
            long run,
            String madeBy,
            @Nullable Instant sentAt,
            String printer,
            long number,
            String payee,
            Money amount,
            @Nullable Answer answer,
            String why,
            String answeredBy) {}

    @Override
    public String name() {
        return "run-register";
    }

    @Override
    @Transactional(readOnly = true)
    public Report of(Actor by, ReportAsked asked) {
        by.mayDo(Deed.READ);
        BatchId id = asked.mustNameBatch();
        Batch batch = batches.get(id);
        BankAccount account = accounts.get(batch.account());
        List<Sheet> sheets = sheets(id);
        List<Report.Line> lines = new ArrayList<>();
        Map<Answer, List<Sheet>> said = new EnumMap<>(Answer.class);
        List<Sheet> waiting = new ArrayList<>();
        long run = 0;
        for (Sheet sheet : sheets) {
            if (sheet.run() != run) {
                run = sheet.run();
                lines.add(Report.Line.group(
                        sheet.sentAt() == null
                                ? "Not handed to a printer, numbers taken by " + sheet.madeBy()
                                : "Printed " + CLOCK.format(sheet.sentAt()) + " by " + sheet.madeBy(),
                        sheet.printer()));
            }
            if (sheet.answer() == null) {
                waiting.add(sheet);
            } else {
                said.computeIfAbsent(sheet.answer(), none -> new ArrayList<>()).add(sheet);
            }
            String words = sheet.answer() == null
                    ? "waits for an answer"
                    : sheet.answer().words();
            lines.add(Report.Line.row(
                    "" + sheet.number(),
                    sheet.payee(),
                    sheet.amount().toString(),
                    words + (sheet.why().isEmpty() ? "" : ": " + sheet.why()),
                    sheet.answeredBy()));
        }
        if (!lines.isEmpty()) {
            lines.add(Report.Line.group("Together"));
        }
        said.forEach((answer, of) -> lines.add(total(of, answer.words(), account)));
        if (!waiting.isEmpty()) {
            lines.add(total(waiting, "without an answer", account));
        }
        return new Report(
                "Register of what was printed: " + batch.name(),
                List.of("checks of " + Dates.inWords(batch.checkDate()) + " from " + account.name() + ", "
                        + account.currency().getCurrencyCode()),
                HEADS,
                lines);
    }

    /** Issues and spoiled sheets both have amounts and are never added to each other. */
    private static Report.Line total(List<Sheet> of, String words, BankAccount account) {
        Money sum = Money.sum(of.stream().map(Sheet::amount).toList(), account.currency());
        String count = of.size() == 1 ? "1 sheet" : of.size() + " sheets";
        return Report.Line.total(count, "", sum.toString(), words, "");
    }

    private List<Sheet> sheets(BatchId batch) {
        return jdbc.sql("""
                        SELECT r.id, m.name AS made_by, r.sent_at, COALESCE(t.name, '') AS printer, n.number, p.payee,
                          d.amount_minor, d.currency, d.answer, d.answer_why, COALESCE(w.name, '') AS answered_by
                        FROM print_run r JOIN person m ON m.id = r.made_by JOIN document d ON d.run_id = r.id
                        JOIN check_number n ON n.id = d.check_number_id JOIN payment p ON p.id = d.payment_id
                        LEFT JOIN person w ON w.id = d.answered_by
                        LEFT JOIN handing_over h ON h.held_run_id = r.id LEFT JOIN printer t ON t.id = h.printer_id
                        WHERE r.batch_id = :batch AND r.kind = 'CHECK' ORDER BY r.made_at, r.id, d.position
                        """)
                .param("batch", batch.value())
                .query((r, n) -> {
                    var sent = r.getTimestamp("sent_at");
                    String answer = r.getString("answer");
                    return new Sheet(
                            r.getLong("id"),
                            r.getString("made_by"),
                            sent == null ? null : sent.toInstant(),
                            r.getString("printer"),
                            r.getLong("number"),
                            r.getString("payee"),
                            Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                            answer == null ? null : Answer.valueOf(answer),
                            r.getString("answer_why"),
                            r.getString("answered_by"));
                })
                .list();
    }
}
