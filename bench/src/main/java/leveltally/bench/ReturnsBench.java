package leveltally.bench;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import leveltally.core.people.Actor;
import leveltally.core.vendors.BankDetails;
import leveltally.server.clearing.BankNotices;
import leveltally.server.frame.Seal;

/** A file of returned ACH entries read and reversed, beside the same rows written by plain JDBC under the same triggers. */
public final class ReturnsBench {
    private static final int ITEMS = Integer.getInteger("items", 100_000);
    /** Read once before, to warm up. */
    private static final int FIRST = 5_000;

    private static final int AT_ONCE = 500;
    private static final LocalDate ON = Loader.CHECK_DATE;
    private static final String ROUTING = "990073053";
    private static final String ACCOUNT = "770031182264";

    private final BenchCompany company;
    private final Connection bare;
    private final Actor clerk;
    private int next;
    private long id = 900_000_000_000L;

    private ReturnsBench(BenchCompany company, Connection bare) {
        this.company = company;
        this.bare = bare;
        Actor who = company.clerk();
        clerk = new Actor(who.person(), who.name(), who.roles(), ON, Instant.now(), "bench");
    }

    /** @param args JDBC address, file for the table */
    public static void main(String[] args) throws Exception {
        BenchCompany.measured(args[0], (company, root, bare) -> {
            TriggersAside triggers = TriggersAside.of(root);
            new PaymentLoader(root, company.account().value()).upTo(2 * (FIRST + ITEMS));
            byFile(root, company);
            triggers.putBack(root);
            ReturnsBench bench = new ReturnsBench(company, bare);
            bench.ours(FIRST);
            bench.bare(FIRST);
            double ours = Rounds.timed(() -> bench.ours(ITEMS));
            double bareRows = Rounds.timed(() -> bench.bare(ITEMS));
            System.gc();
            Runtime memory = Runtime.getRuntime();
            List<String> table = List.of(
                    "| returns | ours | bare updates and inserts | ratio | memory after |",
                    "| ---: | ---: | ---: | ---: | ---: |",
                    "| %,d | %.0f ms | %.0f ms | %.2f | %d MiB |"
                            .formatted(
                                    ITEMS,
                                    ours,
                                    bareRows,
                                    ours / bareRows,
                                    (memory.totalMemory() - memory.freeMemory()) >> 20));
            table.forEach(System.out::println);
            Files.write(Path.of(args[1]), table);
        });
    }

    /** What was loaded as checks went by ACH instead, and stands in the ledger. */
    private static void byFile(Connection root, BenchCompany company) throws SQLException {
        String sealed = company.context()
                .getBean(Seal.class)
                .seal(BankDetails.typed(ROUTING, ACCOUNT, false, "").canonical());
        try (Statement sql = root.createStatement()) {
            sql.execute("INSERT INTO way_to_pay (id, bank_account_id, name, method, position, version) VALUES (77, "
                    + company.account().value() + ", 'Files', 'ACH', 9, 0)");
            sql.execute("INSERT INTO electronic_way (way_id, sender, splits, cut_off, days_ahead, reference_prefix,"
                    + " next_reference, version) VALUES (77, '{}', FALSE, '23:00', 0, 'E', 90000000, 0)");
            sql.execute("UPDATE batch SET way_id = 77, method = 'ACH'");
            sql.execute("UPDATE claim SET bank_sealed = '" + sealed + "'");
            sql.execute("DELETE FROM check_number");
            sql.execute("DELETE FROM payment_event WHERE step = 3");
            sql.execute("UPDATE payment SET state = 'OUTSTANDING', steps = 2, undone_entry_id = NULL");
            sql.execute("UPDATE invoice SET open_minor = 0");
            sql.execute("INSERT INTO electronic_item (payment_id, way_id, reference, called, sequence)"
                    + " SELECT id, 77, id, CONCAT('E-', id), ROW_NUMBER() OVER (ORDER BY id) FROM payment");
            sql.execute("ANALYZE TABLE electronic_item, payment, claim");
        }
    }

    /** One to be returned. */
    private record Item(
            long payment, int sequence, long minor, long batch, long entry, long settlement, long invoice) {}

    private List<Item> items(int count) throws SQLException {
        List<Item> found = new ArrayList<>();
        try (PreparedStatement query = bare.prepareStatement(
                "SELECT p.id, i.sequence, p.amount_minor, p.batch_id, p.posted_entry_id, s.id, s.invoice_id"
                        + " FROM electronic_item i JOIN payment p ON p.id = i.payment_id JOIN settlement s ON s.payment_id = p.id"
                        + " WHERE i.way_id = 77 AND i.sequence > ? AND i.sequence <= ? ORDER BY i.sequence")) {
            query.setInt(1, next);
            query.setInt(2, next + count);
            try (ResultSet row = query.executeQuery()) {
                while (row.next()) {
                    found.add(new Item(
                            row.getLong(1),
                            row.getInt(2),
                            row.getLong(3),
                            row.getLong(4),
                            row.getLong(5),
                            row.getLong(6),
                            row.getLong(7)));
                }
            }
        }
        next += count;
        return found;
    }

    private static String trace(Item one) {
        return "99004410%07d".formatted(one.sequence());
    }

    private static byte[] file(List<Item> items) {
        StringBuilder text = new StringBuilder(items.size() * 200);
        text.append("101 99440011799900441052611160800A094101BENCH COMPANY          SKERROW TRUST                  \n");
        text.append("5220BENCH                               1994400117CCDINVOICES  261116261116   1990044100000001\n");
        long cents = 0;
        for (Item one : items) {
            text.append("621990073053%-17s%010d%-15s%-22s  1990073050000001\n"
                    .formatted(ACCOUNT, one.minor(), "X", "Vendor"));
            text.append("799R03%s      99007305%-44s990073050000001\n".formatted(trace(one), ""));
            cents += one.minor();
        }
        String totals = "%010d%012d%012d".formatted(99_007_305L * items.size() % 10_000_000_000L, 0, cents);
        text.append("8220%06d".formatted(2 * items.size())).append(totals).append("1994400117");
        text.append(" ".repeat(25)).append("990044100000001\n");
        text.append("9000001000001%08d".formatted(2 * items.size()))
                .append(totals)
                .append(" ".repeat(39));
        return text.append('\n').toString().getBytes(StandardCharsets.ISO_8859_1);
    }

    private int ours(int count) throws SQLException {
        BankNotices.NoticesRead read =
                company.context().getBean(BankNotices.class).read(clerk, company.account(), file(items(count)));
        if (read.done() != count) {
            throw new IllegalStateException("dealt with " + read.done() + " of " + count);
        }
        return read.done();
    }

    /** Everything ours writes for them, so many of each at once. */
    private int bare(int count) throws SQLException {
        List<Item> items = items(count);
        long person = clerk.person().value();
        bare.setAutoCommit(false);
        for (int from = 0; from < items.size(); from += AT_ONCE) {
            some(items.subList(from, Math.min(items.size(), from + AT_ONCE)), person);
        }
        bare.setAutoCommit(true);
        return items.size();
    }

    private void some(List<Item> items, long person) throws SQLException {
        long first = id;
        id += 2L * items.size();
        long account = company.account().value();
        batched(
                "INSERT IGNORE INTO bank_notice (id, bank_account_id, kind, code, names, words, payment_id, amount_minor, currency,"
                        + " state, said, read_on, read_at, read_by, version) VALUES (?, ?, 'RETURNED', 'R03', ?, 'there is no such account', ?, ?,"
                        + " 'USD', 'WAITING', '', ?, NOW(6), ?, 0)",
                items,
                (one, i) -> new Object[] {first + i, account, trace(one), one.payment(), one.minor(), ON, person});
        batched(
                "INSERT INTO undoing (id, kind, reason, content, by_two, state, asked_by, asked_at, asked_on, decided_at)"
                        + " VALUES (?, 'UNDO', 'x', '{}', FALSE, 'DONE', ?, NOW(6), ?, NOW(6))",
                items.subList(0, 1),
                (one, i) -> new Object[] {first, person, ON});
        batched("INSERT INTO undoing_payment (undoing_id, payment_id) VALUES (?, ?)", items, (one, i) ->
                new Object[] {first, one.payment()});
        lines(items, first);
        batched(
                "INSERT INTO journal_entry (id, ledger_date, month, kind, text, batch_id, payment_id, reverses_id, made_at, made_by)"
                        + " VALUES (?, ?, ?, 'VOID', 'x', ?, ?, ?, NOW(6), ?)",
                items,
                (one, i) -> new Object[] {
                    first + i, ON, ON.toString().substring(0, 7), one.batch(), one.payment(), one.entry(), person
                });
        batched(
                "INSERT INTO settlement (id, invoice_id, kind, currency, amount_minor, ledger_date, payment_id, entry_id, reverses_id)"
                        + " VALUES (?, ?, 'CASH', 'USD', ?, ?, ?, ?, ?)",
                items,
                (one, i) -> new Object[] {
                    first + i, one.invoice(), -one.minor(), ON, one.payment(), first + i, one.settlement()
                });
        batched(
                "INSERT INTO payment_event (payment_id, step, at, business_date, person_id, to_state, why)"
                        + " VALUES (?, 3, NOW(6), ?, ?, 'REVERSED', 'The bank sent it back')",
                items,
                (one, i) -> new Object[] {one.payment(), ON, person});
        batched(
                "UPDATE payment SET undone_entry_id = ?, state = 'REVERSED', state_date = ?, state_why = 'The bank sent it back',"
                        + " steps = 3, version = version + 1 WHERE id = ?",
                items,
                (one, i) -> new Object[] {first + i, ON, one.payment()});
        batched(
                "INSERT INTO audit_record (sequence, at, person_id, origin, deed, subject, detail, previous_hash, hash)"
                        + " VALUES (?, NOW(6), ?, 'bench', 'reverse payment', ?, '{\"reason\":\"The bank sent it back\"}', ?, ?)",
                items,
                (one, i) -> new Object[] {
                    first + i, person, "payment " + one.payment(), "p" + one.payment(), "h" + one.payment()
                });
        batched(
                "UPDATE bank_notice SET state = 'DONE', said = 'reversed', done_at = NOW(6), done_by = ?, version = version + 1"
                        + " WHERE id = ?",
                items,
                (one, i) -> new Object[] {person, first + i});
        bare.commit();
    }

    private void lines(List<Item> items, long first) throws SQLException {
        String insert =
                "INSERT INTO journal_line (id, entry_id, account_id, currency, debit_minor, credit_minor) VALUES ";
        batched(insert + "(?, ?, 1, 'USD', ?, 0)", items, (one, i) ->
                new Object[] {2 * (first + i), first + i, one.minor()});
        batched(insert + "(?, ?, 2, 'USD', 0, ?)", items, (one, i) ->
                new Object[] {2 * (first + i) + 1, first + i, one.minor()});
    }

    private interface Values {
        Object[] of(Item one, int at);
    }

    private void batched(String sql, List<Item> items, Values values) throws SQLException {
        List<Object[]> rows = new ArrayList<>();
        for (int i = 0; i < items.size(); i++) {
            rows.add(values.of(items.get(i), i));
        }
        BareRows.batched(bare, sql, rows);
    }
}
