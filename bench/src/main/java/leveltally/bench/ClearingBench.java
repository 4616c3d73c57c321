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
import leveltally.server.bankfiles.KeptLayouts;
import leveltally.server.clearing.BankReading;

/** A list of paid checks read and cleared, beside the same rows written by plain JDBC under the same triggers. */
public final class ClearingBench {
    private static final int ITEMS = Integer.getInteger("items", 100_000);
    private static final int ROUNDS = Integer.getInteger("rounds", 3);
    private static final int AT_ONCE = 1_000;
    private static final LocalDate PAID = Loader.CHECK_DATE;

    private final BenchCompany company;
    private final Connection bare;
    private int next = 1;
    private long id = 900_000_000_000L;

    private ClearingBench(BenchCompany company, Connection bare) {
        this.company = company;
        this.bare = bare;
    }

    /** @param args JDBC address, file for the table */
    public static void main(String[] args) throws Exception {
        BenchCompany.measured(args[0], (company, root, bare) -> {
            new PaymentLoader(root, company.account().value()).upTo(2 * ITEMS * (ROUNDS + 2));
            try (Statement sql = root.createStatement()) {
                // none is stale
                sql.execute("UPDATE company SET stale_days = 730");
                sql.execute("DELETE FROM payment_event WHERE step = 3");
                sql.execute("UPDATE payment SET state = 'OUTSTANDING', steps = 2, undone_entry_id = NULL");
            }
            ClearingBench bench = new ClearingBench(company, bare);
            double[] times = new Rounds(ROUNDS).beside(bench::ours, bench::bare);
            List<String> table = List.of(
                    "| items | ours | bare updates and inserts | ratio |",
                    "| ---: | ---: | ---: | ---: |",
                    "| %,d | %.0f ms | %.0f ms | %.2f |".formatted(ITEMS, times[0], times[1], times[0] / times[1]));
            table.forEach(System.out::println);
            Files.write(Path.of(args[1]), table);
        });
    }

    /** The next checks, in their order. */
    private List<long[]> checks() throws SQLException {
        List<long[]> found = new ArrayList<>();
        try (PreparedStatement query = bare.prepareStatement(
                "SELECT n.number, p.amount_minor, p.id FROM check_number n"
                        + " JOIN payment p ON p.id = n.live_payment_id WHERE n.number >= ? AND n.number < ? ORDER BY n.number")) {
            query.setInt(1, next);
            query.setInt(2, next + ITEMS);
            try (ResultSet row = query.executeQuery()) {
                while (row.next()) {
                    found.add(new long[] {row.getLong(1), row.getLong(2), row.getLong(3)});
                }
            }
        }
        next += ITEMS;
        return found;
    }

    private int ours() throws SQLException {
        StringBuilder text = new StringBuilder("paid on,check,amount,reference\n");
        for (long[] one : checks()) {
            text.append(PAID)
                    .append(',')
                    .append(one[0])
                    .append(',')
                    .append(one[1] / 100)
                    .append('.')
                    .append(String.format("%02d", one[1] % 100))
                    .append(",R\n");
        }
        long layout = company.context().getBean(KeptLayouts.class).toRead().stream()
                .filter(one -> one.name().contains("comma"))
                .findFirst()
                .orElseThrow()
                .id();
        Actor clerk = company.clerk();
        Actor later = new Actor(clerk.person(), clerk.name(), clerk.roles(), PAID.plusDays(1), Instant.now(), "bench");
        BankReading.BankRead read = company.context()
                .getBean(BankReading.class)
                .read(
                        later,
                        new BankReading.Sent(
                                company.account(),
                                "paid.csv",
                                text.toString().getBytes(StandardCharsets.UTF_8),
                                layout,
                                ""));
        if (read.cleared() != ITEMS) {
            throw new IllegalStateException("cleared " + read.cleared() + " of " + ITEMS);
        }
        return read.cleared();
    }

    private int bare() throws SQLException {
        List<long[]> checks = checks();
        long account = company.account().value();
        long person = company.clerk().person().value();
        bare.setAutoCommit(false);
        long report = id++;
        try (Statement sql = bare.createStatement()) {
            sql.execute(
                    "INSERT INTO bank_report (id, bank_account_id, kind, format, file_name, number, from_day, to_day, currency,"
                            + " movements, out_minor, in_minor, gap, read_at, read_by) VALUES (" + report + ", "
                            + account
                            + ", 'PAID_CHECKS', 'x', 'x', '', '" + PAID + "', '" + PAID
                            + "', 'USD', 0, 0, 0, '', NOW(6), "
                            + person + ")");
        }
        long first = id;
        batched(
                "INSERT INTO bank_movement (id, report_id, bank_account_id, position, bank_date, currency, amount_minor,"
                        + " open_minor, number_text, number, text, reference, reversal, version)"
                        + " VALUES (?, ?, ?, ?, ?, 'USD', ?, ?, ?, ?, '', 'R', FALSE, 0)",
                checks,
                (row, one, i) -> {
                    row.setLong(1, first + i);
                    row.setLong(2, report);
                    row.setLong(3, account);
                    row.setInt(4, i + 1);
                    row.setObject(5, PAID);
                    row.setLong(6, -one[1]);
                    row.setLong(7, -one[1]);
                    row.setString(8, String.valueOf(one[0]));
                    row.setLong(9, one[0]);
                });
        batched(
                "UPDATE payment SET state = 'CLEARED', state_date = ?, state_why = '', steps = 3, version = version + 1"
                        + " WHERE id = ?",
                checks,
                (row, one, i) -> {
                    row.setObject(1, PAID);
                    row.setLong(2, one[2]);
                });
        batched(
                "INSERT INTO payment_event (payment_id, step, at, business_date, person_id, to_state, why)"
                        + " VALUES (?, 3, NOW(6), ?, ?, 'CLEARED', '')",
                checks,
                (row, one, i) -> {
                    row.setLong(1, one[2]);
                    row.setObject(2, PAID);
                    row.setLong(3, person);
                });
        batched(
                "INSERT INTO bank_match (id, movement_id, bank_account_id, kind, payment_id, amount_minor, on_day, answer, why,"
                        + " made_at, made_by) VALUES (?, ?, ?, 'PAYMENT', ?, ?, ?, '', '', NOW(6), ?)",
                checks,
                (row, one, i) -> {
                    row.setLong(1, first + i);
                    row.setLong(2, first + i);
                    row.setLong(3, account);
                    row.setLong(4, one[2]);
                    row.setLong(5, -one[1]);
                    row.setObject(6, PAID);
                    row.setLong(7, person);
                });
        bare.commit();
        bare.setAutoCommit(true);
        id = first + ITEMS;
        return checks.size();
    }

    private interface Filled {
        void with(PreparedStatement row, long[] check, int at) throws SQLException;
    }

    private void batched(String sql, List<long[]> checks, Filled filled) throws SQLException {
        try (PreparedStatement row = bare.prepareStatement(sql)) {
            for (int i = 0; i < checks.size(); i++) {
                filled.with(row, checks.get(i), i);
                row.addBatch();
                if ((i + 1) % AT_ONCE == 0) {
                    row.executeBatch();
                }
            }
            row.executeBatch();
        }
    }
}
