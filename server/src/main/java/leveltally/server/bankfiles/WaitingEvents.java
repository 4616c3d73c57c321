package leveltally.server.bankfiles;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.LongStream;
import leveltally.core.bankfiles.BankFile;
import leveltally.core.bankfiles.FileState;
import leveltally.core.bankfiles.Sums;
import leveltally.core.checks.BankKnows;
import leveltally.core.money.Money;
import leveltally.server.ledger.BankAccount;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/**
 * What a bank is told of, in the order of its numbers. They are looked through once for what they come to, and read a few
 * hundred at a time when they are written, so that any number of them needs no memory but their ids.
 */
@Component
class WaitingEvents {
    /** From a thousand values on MariaDB makes a list a table. */
    private static final int AT_ONCE = 900;

    private static final int FETCHED = 2_000;
    private static final String OF_CHECKS = """
            FROM bank_event e JOIN check_number n ON n.id = e.check_number_id JOIN number_series s ON s.id = n.series_id
            """;

    private final JdbcClient jdbc;

    WaitingEvents(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Which events of an account. */
    enum Which {
        WAITING("e.file_id IS NULL"),
        /** Those of the file made last. */
        TOLD_LAST("e.file_id = (SELECT MAX(t.id) FROM bank_file t WHERE t.bank_account_id = e.bank_account_id"
                + " AND t.purpose = 'POSITIVE_PAY')"),
        /** Issues the bank was told of whose checks are out. */
        OUT("e.file_id IS NOT NULL AND e.kind = 'ISSUE' AND p.state IN ('OUTSTANDING', 'STOPPED')");

        private final String sql;

        Which(String sql) {
            this.sql = sql;
        }
    }

    /**
     * What goes into a file.
     *
     * @param ids in the order in which they are told
     * @param heldBack how many voids wait for the answer to the file of their issue
     * @param staying how many of all that could go stay, because it is narrowed
     */
    record Going(long[] ids, Sums sums, int heldBack, int staying) {
        boolean isNothing() {
            return ids.length == 0;
        }
    }

    private static final class Found {
        private long[] ids = new long[64];
        private int many;
        private Sums sums;
        private int heldBack;
        private int staying;

        Found(Sums none) {
            this.sums = none;
        }

        void take(long id, BankFile.Item item) {
            if (many == ids.length) {
                ids = Arrays.copyOf(ids, many * 2);
            }
            ids[many++] = id;
            sums = sums.with(item);
        }
    }

    /** Looks through them; nobody else puts them into a file while the account is locked. */
    Going look(BankAccount account, Which which, Narrowed narrowed) {
        Found found = new Found(Sums.none(account.currency()));
        jdbc.sql("""
                        SELECT e.id, n.series_id, e.kind, n.number, e.amount_minor, e.event_date, i.never_reported,
                          f.state = :accepted AS accepted
                        %s JOIN payment p ON p.id = n.payment_id
                        LEFT JOIN bank_event i ON i.check_number_id = e.check_number_id AND i.kind = :issue
                        LEFT JOIN bank_file f ON f.id = i.file_id
                        WHERE e.bank_account_id = :account AND %s AND e.never_reported IS NULL ORDER BY n.number, e.kind, e.id
                        """.formatted(OF_CHECKS, which.sql))
                .param("account", account.id().value())
                .param("issue", BankFile.Item.Kind.ISSUE.name())
                .param("accepted", FileState.ACCEPTED.name())
                .withFetchSize(FETCHED)
                .query((java.sql.ResultSet r) -> {
                    BankFile.Item.Kind kind = BankFile.Item.Kind.valueOf(r.getString("kind"));
                    boolean goes = kind == BankFile.Item.Kind.ISSUE
                            || BankKnows.Issue.of(
                                            r.getString("never_reported") != null,
                                            r.getObject("accepted", Boolean.class))
                                    .letsVoidGo();
                    LocalDate day = r.getObject("event_date", LocalDate.class);
                    if (!goes) {
                        found.heldBack++;
                    } else if (!narrowed.takes(r.getLong("series_id"), day)) {
                        found.staying++;
                    } else {
                        found.take(
                                r.getLong("id"),
                                new BankFile.Item(
                                        kind,
                                        r.getLong("number"),
                                        "",
                                        Money.ofMinor(r.getLong("amount_minor"), account.currency()),
                                        day,
                                        day,
                                        ""));
                    }
                });
        return new Going(Arrays.copyOf(found.ids, found.many), found.sums, found.heldBack, found.staying);
    }

    /** An event as a file tells it. */
    record Told(long event, BankFile.Item item) {}

    /** The first of them. */
    List<Told> first(Going going, int most) {
        List<Told> first = new ArrayList<>();
        each(Arrays.copyOf(going.ids(), Math.min(most, going.ids().length)), first::addAll);
        return first;
    }

    /** All of them in their order, some hundred at a time. */
    void each(long[] ids, Consumer<List<Told>> some) {
        for (int from = 0; from < ids.length; from += AT_ONCE) {
            some.accept(told(Arrays.copyOfRange(ids, from, Math.min(ids.length, from + AT_ONCE))));
        }
    }

    private List<Told> told(long[] ids) {
        return jdbc
                .sql("""
                        SELECT e.id, e.kind, n.number, CONCAT(s.prefix, n.number) AS printed, e.amount_minor, e.currency, p.check_date,
                          e.event_date, e.payee
                        %s JOIN payment p ON p.id = n.payment_id WHERE e.id IN (:ids)
                        """.formatted(OF_CHECKS))
                .param("ids", LongStream.of(ids).boxed().toList())
                .query((r, n) -> new Told(r.getLong("id"), EventItem.of(r)))
                .list()
                .stream()
                // as they were looked through: a list of ids has no order
                .sorted(Comparator.comparingLong((Told one) -> one.item().number())
                        .thenComparing(one -> one.item().kind().name())
                        .thenComparingLong(Told::event))
                .toList();
    }

    /** Writes down in which place of a file each stands. */
    void putDown(long file, List<Long> events, int before) {
        jdbc.sql("INSERT INTO bank_file_item (file_id, event_id, position) SELECT :file, e.id,"
                        + " :before + ROW_NUMBER() OVER (ORDER BY n.number, e.kind, e.id) " + OF_CHECKS
                        + " WHERE e.id IN (:events)")
                .param("file", file)
                .param("before", before)
                .param("events", events)
                .update();
    }
}
