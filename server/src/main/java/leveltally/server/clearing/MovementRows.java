package leveltally.server.clearing;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Timestamp;
import java.sql.Types;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import leveltally.core.checks.NumberState;
import leveltally.core.clearing.Answer;
import leveltally.core.clearing.Movement;
import leveltally.core.clearing.Presented;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.server.frame.WorkIds;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Movements the bank told, and what stands for them. */
@Component
class MovementRows {
    private static final String COLUMNS = """
            m.id, m.version, m.report_id, r.kind AS told_by, r.read_at, r.place, m.position, m.bank_date, m.currency, m.amount_minor,
            m.open_minor, m.number_text, m.read_as, m.text, m.reference, m.reversal,
            (SELECT MAX(u.undone_on) FROM bank_match u WHERE u.movement_id = m.id) AS free_from
            """;

    /** Named, because the driver asks the database for the type of each null otherwise. */
    private static final int[] TYPES_OF_A_MATCH = {
        Types.BIGINT,
        Types.BIGINT,
        Types.BIGINT,
        Types.VARCHAR,
        Types.BIGINT,
        Types.BIGINT,
        Types.BIGINT,
        Types.BIGINT,
        Types.VARCHAR,
        Types.BIGINT,
        Types.DATE,
        Types.VARCHAR,
        Types.VARCHAR,
        Types.TIMESTAMP,
        Types.BIGINT
    };

    private final JdbcClient jdbc;
    private final JdbcTemplate many;
    private final WorkIds ids;

    MovementRows(JdbcClient jdbc, JdbcTemplate many, WorkIds ids) {
        this.jdbc = jdbc;
        this.many = many;
        this.ids = ids;
    }

    /**
     * A movement as it stands.
     *
     * @param says as it counts: with the number it was found to mean, where the bank read it wrong
     * @param open what nothing stands for yet
     * @param freeFrom the day from which what stood for it before stands no more; null where nothing did
     */
    record Told(
            long id,
            long version,
            long report,
            TheBankSays by,
            Instant readAt,
            Movement says,
            Money open,
            @Nullable LocalDate freeFrom) {
        /** The first day from which something new can stand for it: past days keep what they had. */
        LocalDate from() {
            return freeFrom != null && freeFrom.isAfter(says.day()) ? freeFrom : says.day();
        }

        LocalDate from(LocalDate other) {
            return other.isAfter(from()) ? other : from();
        }

        boolean isWhole() {
            return open.equals(says.amount());
        }
    }

    /**
     * What stands for a movement from a day on.
     *
     * @param of the payment, entry, movement or claim; null for what the bank owes
     */
    record Match(
            long movement,
            MatchKind kind,
            @Nullable Long of,
            Money amount,
            LocalDate on,
            @Nullable Answer answer,
            String why,
            @Nullable TheBankSays toldBy) {}

    /**
     * Keeps what a report tells, in its order.
     *
     * @param after how many it has told before
     */
    List<Told> add(
            long report, TheBankSays by, BankAccountId account, Instant at, int after, List<Movement> movements) {
        WorkIds.Supply supply = ids.supply();
        List<Told> told = new ArrayList<>();
        List<Object[]> rows = new ArrayList<>();
        for (Movement one : movements) {
            long id = supply.next();
            OptionalLong digits = one.digits();
            told.add(new Told(id, 0, report, by, at, one, one.amount(), null));
            rows.add(new Object[] {
                id,
                report,
                account.value(),
                after + rows.size() + 1,
                one.day(),
                one.amount().currency().getCurrencyCode(),
                one.amount().minor(),
                one.amount().minor(),
                one.number(),
                digits.isPresent() ? digits.getAsLong() : null,
                one.text(),
                one.reference(),
                one.reversal()
            });
        }
        many.batchUpdate("""
                INSERT INTO bank_movement (id, report_id, bank_account_id, position, bank_date, currency, amount_minor, open_minor,
                  number_text, number, text, reference, reversal, version) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 0)
                """, rows);
        return told;
    }

    /** What a report told, in its order. */
    List<Movement> of(long report) {
        return jdbc.sql(
                        "SELECT bank_date, amount_minor, currency, number_text, text, reference, reversal FROM bank_movement"
                                + " WHERE report_id = ? ORDER BY position")
                .param(report)
                .query((r, n) -> new Movement(
                        r.getObject("bank_date", LocalDate.class),
                        Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                        r.getString("number_text"),
                        r.getString("text"),
                        r.getString("reference"),
                        r.getBoolean("reversal")))
                .list();
    }

    /** Writes what stands for movements; what of each is open follows in the database. */
    void match(Actor by, BankAccountId account, List<Match> matches) {
        WorkIds.Supply supply = ids.supply();
        Timestamp at = Timestamp.from(by.now());
        List<Object[]> rows = new ArrayList<>();
        for (Match one : matches) {
            rows.add(new Object[] {
                supply.next(),
                one.movement(),
                account.value(),
                one.kind().name(),
                one.kind() == MatchKind.PAYMENT ? one.of() : null,
                one.kind() == MatchKind.ENTRY ? one.of() : null,
                one.kind() == MatchKind.TOLD || one.kind() == MatchKind.TURNED ? one.of() : null,
                one.kind() == MatchKind.CORRECTION ? one.of() : null,
                one.toldBy() == null ? null : one.toldBy().name(),
                one.amount().minor(),
                one.on(),
                one.answer() == null ? "" : one.answer().name(),
                one.why(),
                at,
                by.person().value()
            });
        }
        many.batchUpdate("""
                INSERT INTO bank_match (id, movement_id, bank_account_id, kind, payment_id, entry_id, other_movement_id, claim_id, told_by,
                  amount_minor, on_day, answer, why, made_at, made_by) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
                """, rows, TYPES_OF_A_MATCH);
    }

    /** What is not answered, the oldest first. */
    List<Told> open(BankAccountId account, int most) {
        return told(
                "m.bank_account_id = :account AND m.is_open = 1 ORDER BY m.bank_date, r.read_at, m.report_id, m.position LIMIT :most",
                Map.of("account", account.value(), "most", most));
    }

    Optional<Told> one(BankAccountId account, long movement) {
        return told("m.bank_account_id = :account AND m.id = :id", Map.of("account", account.value(), "id", movement))
                .stream()
                .findFirst();
    }

    /** These, with their rows locked until the transaction ends, in the order of their ids. */
    List<Told> lock(BankAccountId account, Collection<Long> movements) {
        jdbc.sql("SELECT id FROM bank_movement WHERE id IN (:ids) ORDER BY id FOR UPDATE")
                .param("ids", movements)
                .query(Long.class)
                .list();
        return told(
                "m.bank_account_id = :account AND m.id IN (:ids) ORDER BY m.id",
                Map.of("account", account.value(), "ids", movements));
    }

    private List<Told> told(String which, Map<String, ?> params) {
        return jdbc.sql("SELECT " + COLUMNS + " FROM bank_movement m JOIN bank_report r ON r.id = m.report_id WHERE "
                        + which)
                .params(params)
                .query(MovementRows::told)
                .list();
    }

    private static Told told(ResultSet r, int n) throws SQLException {
        String currency = r.getString("currency");
        Long readAs = r.getObject("read_as", Long.class);
        return new Told(
                r.getLong("id"),
                r.getLong("version"),
                r.getLong("report_id"),
                TheBankSays.valueOf(r.getString("told_by")),
                r.getTimestamp("read_at").toInstant(),
                new Movement(
                        r.getObject("bank_date", LocalDate.class),
                        Money.ofMinor(r.getLong("amount_minor"), currency),
                        readAs == null ? r.getString("number_text") : String.valueOf(readAs),
                        r.getString("text"),
                        r.getString("reference"),
                        r.getBoolean("reversal")),
                Money.ofMinor(r.getLong("open_minor"), currency),
                r.getObject("free_from", LocalDate.class));
    }

    /** What stands for a payment: the movement it is matched with, from which day on. */
    record Standing(long match, long movement, LocalDate on, Money amount) {}

    Optional<Standing> standing(PaymentId payment) {
        return jdbc.sql("SELECT k.id, k.movement_id, k.on_day, k.amount_minor, m.currency FROM bank_match k"
                        + " JOIN bank_movement m ON m.id = k.movement_id WHERE k.standing_payment_id = ?")
                .param(payment.value())
                .query((r, n) -> new Standing(
                        r.getLong("id"),
                        r.getLong("movement_id"),
                        r.getObject("on_day", LocalDate.class),
                        Money.ofMinor(r.getLong("amount_minor"), r.getString("currency"))))
                .optional();
    }

    /** How many movements a report has. */
    int after(long report) {
        return jdbc.sql("SELECT COUNT(*) FROM bank_movement WHERE report_id = ?")
                .param(report)
                .query(Integer.class)
                .single();
    }

    /**
     * What stands for a movement now.
     *
     * @param of null where it is what the bank owes
     * @param corrected whether the bank gave back what it owed
     */
    record Stood(
            long match,
            MatchKind kind,
            @Nullable Long of,
            LocalDate on,
            @Nullable Answer answer,
            boolean corrected) {}

    List<Stood> stood(long movement) {
        return jdbc.sql("""
                        SELECT k.id, k.kind, COALESCE(k.payment_id, k.entry_id, k.other_movement_id, k.claim_id) AS of_id, k.on_day,
                          k.answer, EXISTS (SELECT 1 FROM bank_match d WHERE d.claim_id = k.id AND d.undone_on IS NULL) AS corrected
                        FROM bank_match k WHERE k.movement_id = ? AND k.undone_on IS NULL ORDER BY k.id
                        """)
                .param(movement)
                .query((r, n) -> new Stood(
                        r.getLong("id"),
                        MatchKind.valueOf(r.getString("kind")),
                        r.getObject("of_id", Long.class),
                        r.getObject("on_day", LocalDate.class),
                        r.getString("answer").isEmpty() ? null : Answer.valueOf(r.getString("answer")),
                        r.getBoolean("corrected")))
                .list();
    }

    /** The matches by which other reports told a movement again. */
    List<Long> toldAgain(long movement) {
        return jdbc.sql("SELECT id FROM bank_match WHERE told_id = ?")
                .param(movement)
                .query(Long.class)
                .list();
    }

    /** From that day on these stand no more. */
    void undo(Actor by, List<Long> matches, LocalDate on, String why) {
        jdbc.sql(
                        "UPDATE bank_match SET undone_on = :on, undone_at = :at, undone_by = :by, undone_why = :why WHERE id IN (:ids)")
                .param("on", on)
                .param("at", Timestamp.from(by.now()))
                .param("by", by.person().value())
                .param("why", why)
                .param("ids", matches)
                .update();
    }

    /** The bank read the number wrong. */
    void readAs(long movement, long number) {
        jdbc.sql("UPDATE bank_movement SET read_as = ?, version = version + 1 WHERE id = ?")
                .params(number, movement)
                .update();
    }

    /** The payments behind these numbers of an account, with their rows locked until the transaction ends. */
    void lockPayments(BankAccountId account, Collection<Long> numbers) {
        if (numbers.isEmpty()) {
            return;
        }
        List<Long> payments = jdbc.sql("""
                        SELECT n.live_payment_id FROM series_of_account s JOIN check_number n ON n.series_id = s.id
                        WHERE s.bank_account_id = :account AND n.number IN (:numbers) AND n.live_payment_id IS NOT NULL
                        """)
                .param("account", account.value())
                .param("numbers", numbers)
                .query(Long.class)
                .list();
        if (!payments.isEmpty()) {
            jdbc.sql("SELECT id FROM payment WHERE id IN (:ids) ORDER BY id FOR UPDATE")
                    .param("ids", payments)
                    .query(Long.class)
                    .list();
        }
    }

    /** The numbers of an account with these digits, and what they carry; one statement. */
    Map<Long, List<Presented>> presented(BankAccountId account, Collection<Long> numbers) {
        Map<Long, List<Presented>> found = new HashMap<>();
        if (numbers.isEmpty()) {
            return found;
        }
        jdbc.sql("""
                        SELECT x.prefix, n.number, n.state AS paper, p.id, p.payee, p.amount_minor, p.currency, p.check_date,
                          p.ledger_date, p.state, p.state_date
                        FROM series_of_account s JOIN number_series x ON x.id = s.id JOIN check_number n ON n.series_id = s.id
                        LEFT JOIN payment p ON p.id = n.live_payment_id
                        WHERE s.bank_account_id = :account AND n.number IN (:numbers)
                        """)
                .param("account", account.value())
                .param("numbers", numbers)
                .query((ResultSet r) -> {
                    Long payment = r.getObject("id", Long.class);
                    Presented one = new Presented(
                            r.getString("prefix"),
                            r.getLong("number"),
                            NumberState.valueOf(r.getString("paper")),
                            payment == null
                                    ? null
                                    : new Presented.Carried(
                                            new PaymentId(payment),
                                            r.getString("payee"),
                                            Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                                            r.getObject("check_date", LocalDate.class),
                                            r.getObject("ledger_date", LocalDate.class),
                                            PaymentState.valueOf(r.getString("state")),
                                            r.getObject("state_date", LocalDate.class)));
                    found.computeIfAbsent(one.number(), none -> new ArrayList<>())
                            .add(one);
                });
        return found;
    }

    /** A movement that says what another told before: same number, same amount, from another kind of report. */
    record Same(long movement, TheBankSays by, long number, Money amount, Set<TheBankSays> toldBy) {}

    /**
     * What was told before of these numbers, each with the kinds of reports that told the same again. The indexes are named,
     * because a report just read is not in the figures by which the database chooses.
     *
     * @param report whose own movements do not count; 0 for none
     */
    List<Same> toldBefore(BankAccountId account, Collection<Long> numbers, long report) {
        Map<Long, Same> found = new LinkedHashMap<>();
        jdbc.sql("""
                        SELECT STRAIGHT_JOIN m.id, r.kind, m.meant, m.amount_minor, m.currency
                        FROM bank_movement m FORCE INDEX (by_number) JOIN bank_report r ON r.id = m.report_id
                        WHERE m.bank_account_id = :account AND m.meant IN (:numbers) AND m.report_id <> :report
                        ORDER BY m.bank_date, m.id
                        """)
                .param("account", account.value())
                .param("numbers", numbers)
                .param("report", report)
                .query((ResultSet r) -> {
                    found.put(
                            r.getLong("id"),
                            new Same(
                                    r.getLong("id"),
                                    TheBankSays.valueOf(r.getString("kind")),
                                    r.getLong("meant"),
                                    Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                                    new HashSet<>()));
                });
        if (found.isEmpty()) {
            return List.of();
        }
        List<Long> known = List.copyOf(found.keySet());
        jdbc.sql("SELECT told_id, told_by FROM bank_match FORCE INDEX (told_id) WHERE told_id IN (:known)")
                .param("known", known)
                .query((ResultSet r) -> {
                    found.get(r.getLong("told_id")).toldBy().add(TheBankSays.valueOf(r.getString("told_by")));
                });
        jdbc.sql("SELECT movement_id, kind FROM bank_match FORCE INDEX (movement_id)"
                        + " WHERE movement_id IN (:known) AND undone_on IS NULL AND kind IN (:kinds)")
                .param("known", known)
                .param("kinds", List.of(MatchKind.TOLD.name(), MatchKind.TURNED.name()))
                .query((ResultSet r) -> {
                    long id = r.getLong("movement_id");
                    Same one = found.get(id);
                    // what told another again counts as that; what was typed by mistake was never told
                    if (one != null
                            && (r.getString("kind").equals(MatchKind.TOLD.name()) || one.by() == TheBankSays.BY_HAND)) {
                        found.remove(id);
                    }
                });
        return List.copyOf(found.values());
    }
}
