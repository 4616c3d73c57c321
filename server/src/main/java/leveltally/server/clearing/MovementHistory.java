package leveltally.server.clearing;

import java.sql.ResultSet;
import java.sql.Timestamp;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Dates;
import leveltally.core.clearing.Movement;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.money.Money;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Reads movements with what stands for them, and stood. */
@Component
class MovementHistory {
    private static final int PAGE = 500;

    private final JdbcClient jdbc;

    MovementHistory(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    BankExceptions.BankMovementsView of(
            BankAccountId account, @Nullable Long report, @Nullable String number, @Nullable Long after) {
        Long digits = number == null
                ? null
                : new Movement(LocalDate.EPOCH, Money.ofMinor(0, "USD"), number, "", "", false)
                        .digits().stream().boxed().findFirst().orElse(-1L);
        String which = (report == null ? "" : " AND m.report_id = :report")
                + (digits == null ? "" : " AND m.meant = :digits")
                + (after == null ? "" : report == null ? " AND m.id < :after" : " AND m.id > :after");
        JdbcClient.StatementSpec statement = jdbc.sql("""
                        SELECT m.id, m.version, m.bank_date, m.currency, m.amount_minor, m.open_minor, m.number_text, m.read_as, m.text,
                          m.reference, r.kind, r.file_name
                        FROM bank_movement m JOIN bank_report r ON r.id = m.report_id WHERE m.bank_account_id = :account
                        """ + which
                        + (report == null ? " ORDER BY m.id DESC LIMIT " : " ORDER BY m.id LIMIT ") + (PAGE + 1))
                .param("account", account.value());
        statement = report == null ? statement : statement.param("report", report);
        statement = digits == null ? statement : statement.param("digits", digits);
        statement = after == null ? statement : statement.param("after", after);
        Map<Long, List<BankExceptions.BankMatchView>> matches = new HashMap<>();
        List<BankExceptions.BankMovementView> found = new ArrayList<>(statement
                .query((r, n) -> {
                    List<BankExceptions.BankMatchView> own = new ArrayList<>();
                    matches.put(r.getLong("id"), own);
                    Money amount = Money.ofMinor(r.getLong("amount_minor"), r.getString("currency"));
                    Money open = Money.ofMinor(r.getLong("open_minor"), r.getString("currency"));
                    Long readAs = r.getObject("read_as", Long.class);
                    return new BankExceptions.BankMovementView(
                            r.getLong("id"),
                            r.getLong("version"),
                            r.getObject("bank_date", LocalDate.class),
                            MoneyView.of(size(amount)),
                            amount.isPositive(),
                            r.getString("number_text") + (readAs == null ? "" : ", which is " + readAs),
                            r.getString("text"),
                            r.getString("reference"),
                            TheBankSays.valueOf(r.getString("kind")).words(),
                            r.getString("file_name"),
                            MoneyView.of(size(open)),
                            open.isZero(),
                            !open.equals(amount) || TheBankSays.valueOf(r.getString("kind")) == TheBankSays.BY_HAND,
                            own);
                })
                .list());
        boolean more = found.size() > PAGE;
        List<BankExceptions.BankMovementView> shown = more ? found.subList(0, PAGE) : found;
        if (!shown.isEmpty()) {
            read(shown.stream().map(BankExceptions.BankMovementView::id).toList(), matches);
        }
        return new BankExceptions.BankMovementsView(List.copyOf(shown), more);
    }

    private void read(List<Long> movements, Map<Long, List<BankExceptions.BankMatchView>> into) {
        jdbc.sql("""
                        SELECT k.movement_id, k.kind, k.amount_minor, m.currency, k.on_day, k.why, k.made_at, w.name, k.undone_on,
                          k.undone_why, p.payee, CONCAT(s.prefix, n.number) AS number, e.text, r.kind AS other_kind
                        FROM bank_match k JOIN bank_movement m ON m.id = k.movement_id JOIN person w ON w.id = k.made_by
                        LEFT JOIN payment p ON p.id = k.payment_id LEFT JOIN check_number n ON n.live_payment_id = p.id
                        LEFT JOIN number_series s ON s.id = n.series_id LEFT JOIN journal_entry e ON e.id = k.entry_id
                        LEFT JOIN bank_movement o ON o.id = k.other_movement_id LEFT JOIN bank_report r ON r.id = o.report_id
                        WHERE k.movement_id IN (:movements) ORDER BY k.id
                        """).param("movements", movements).query((ResultSet r) -> {
            LocalDate undone = r.getObject("undone_on", LocalDate.class);
            Timestamp at = r.getTimestamp("made_at");
            into.get(r.getLong("movement_id"))
                    .add(new BankExceptions.BankMatchView(
                            MatchKind.valueOf(r.getString("kind")),
                            words(r),
                            MoneyView.of(size(Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")))),
                            r.getObject("on_day", LocalDate.class),
                            r.getString("why"),
                            r.getString("name"),
                            at.toInstant(),
                            undone == null
                                    ? ""
                                    : "taken back on " + Dates.inWords(undone) + ": " + r.getString("undone_why")));
        });
    }

    private static String words(ResultSet r) throws java.sql.SQLException {
        return switch (MatchKind.valueOf(r.getString("kind"))) {
            case PAYMENT ->
                (r.getString("number") == null ? "Payment" : "Check " + r.getString("number")) + ", "
                        + r.getString("payee");
            case ENTRY -> "Entry: " + r.getString("text");
            case TOLD ->
                "Told before: " + TheBankSays.valueOf(r.getString("other_kind")).words();
            case TURNED -> "Turned by the bank";
            case CLAIM -> "Owed by the bank";
            case CORRECTION -> "Given back by the bank";
        };
    }

    private static Money size(Money amount) {
        return amount.isNegative() ? amount.negated() : amount;
    }
}
