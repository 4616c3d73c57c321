package leveltally.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** The register and the lists as of a day over many payments, each answer of the application beside the bare statements. */
public final class RegisterBench {
    private static final int ROUNDS = 5;
    private static final LocalDate ON = Loader.CHECK_DATE.minusDays(200);

    private final SignedIn clerk;
    private final Connection bare;
    private final List<String> table = new ArrayList<>();

    private RegisterBench(SignedIn clerk, Connection bare) {
        this.clerk = clerk;
        this.bare = bare;
    }

    /** @param args JDBC address, file for the table, then the numbers of payments, growing */
    public static void main(String[] args) throws Exception {
        BenchCompany.measured(args[0], (company, root, bare) -> {
            PaymentLoader loader = new PaymentLoader(root, company.account().value());
            RegisterBench bench = new RegisterBench(new SignedIn(company.context()), bare);
            bench.table.add("| payments | list | ours | bare statements | ratio |");
            bench.table.add("| ---: | --- | ---: | ---: | ---: |");
            for (int size :
                    Arrays.stream(args).skip(2).mapToInt(Integer::parseInt).toArray()) {
                long start = System.nanoTime();
                loader.upTo(size);
                System.out.printf("%,d payments loaded in %.1f s%n", size, (System.nanoTime() - start) / 1e9);
                bench.measure(size, loader.series());
            }
            Files.write(Path.of(args[1]), bench.table);
        });
    }

    private void measure(int size, long series) throws Exception {
        String ofSeries = "n.series_id = " + series;
        String year = "&from=" + ON.minusYears(1) + "&to=" + ON;
        String payee =
                "p.payee LIKE '%Vendor 77%' AND p.check_date BETWEEN '" + ON.minusYears(1) + "' AND '" + ON + "'";
        row(size, "register, first page", "/api/checks?series=" + series, page(ofSeries));
        row(size, "register, what all come to", "/api/checks/totals?series=" + series, sums(ofSeries));
        row(size, "register, a number", "/api/checks?text=" + size / 2, anywhere(size / 2));
        row(size, "register, a payee and a year", "/api/checks?text=Vendor%2077" + year, page(payee));
        row(size, "what those come to", "/api/checks/totals?text=Vendor%2077" + year, sums(payee));
        row(size, "outstanding on a day", "/api/reports/outstanding?on=" + ON, """
                SELECT n.number, p.payee, p.check_date, e.to_state, p.amount_minor FROM payment p
                JOIN journal_entry j ON j.id = p.posted_entry_id AND j.ledger_date <= '%1$s'
                JOIN payment_event e ON e.payment_id = p.id AND e.step = (SELECT MAX(x.step) FROM payment_event x
                  WHERE x.payment_id = p.id AND x.business_date <= '%1$s')
                JOIN check_number n ON n.live_payment_id = p.id WHERE e.to_state IN ('OUTSTANDING', 'STOPPED')
                """.formatted(ON));
        row(size, "what was owed on a day", "/api/reports/aging?on=" + ON, """
                SELECT i.vendor_id, SUM(i.amount_minor - COALESCE((SELECT SUM(s.amount_minor) FROM settlement s
                  WHERE s.invoice_id = i.id AND s.ledger_date <= '%1$s'), 0)) FROM invoice i WHERE i.ledger_date <= '%1$s'
                GROUP BY i.vendor_id
                """.formatted(ON), """
                SELECT SUM(l.credit_minor) - SUM(l.debit_minor) FROM journal_line l JOIN journal_entry e ON e.id = l.entry_id
                WHERE l.account_id = 2 AND e.ledger_date <= '%s'
                """.formatted(ON));
    }

    /** A number among everything it can mean: digits of a check, the beginning or end of a reference, part of a payee's name. */
    private static String anywhere(int number) {
        String backwards = new StringBuilder(String.valueOf(number)).reverse().toString();
        return "SELECT n.*, p.payee, p.amount_minor, p.currency, p.check_date, b.name FROM (SELECT c.id FROM check_number c WHERE c.number = "
                + number
                + " UNION SELECT c.id FROM vendor v JOIN payment y ON y.vendor_id = v.id JOIN check_number c"
                + " ON c.payment_id = y.id WHERE v.name LIKE '%" + number + "%'"
                + " UNION SELECT c.id FROM invoice i JOIN claim_line l ON l.invoice_id = i.id JOIN payment y"
                + " ON y.claim_id = l.claim_id JOIN check_number c ON c.payment_id = y.id WHERE i.reference_backwards LIKE '"
                + backwards
                + "%') found JOIN check_register n ON n.id = found.id LEFT JOIN payment p ON p.id = n.payment_id"
                + " LEFT JOIN batch b ON b.id = p.batch_id";
    }

    private static String sums(String where) {
        return "SELECT n.state, p.currency, COUNT(*), SUM(p.amount_minor) FROM check_register n LEFT JOIN payment p"
                + " ON p.id = n.payment_id WHERE " + where + " GROUP BY n.state, p.currency";
    }

    private static String page(String where) {
        return "SELECT n.*, p.payee, p.amount_minor, p.currency, p.check_date, b.name FROM check_register n"
                + " LEFT JOIN payment p ON p.id = n.payment_id LEFT JOIN batch b ON b.id = p.batch_id WHERE " + where
                + " ORDER BY n.number DESC, n.id DESC LIMIT 200";
    }

    private void row(int size, String list, String path, String... statements) throws Exception {
        double[] times = new Rounds(ROUNDS).beside(() -> clerk.get(path), () -> read(statements));
        table.add("| %,d | %s | %.0f ms | %.0f ms | %.2f |"
                .formatted(size, list, times[0], times[1], times[0] / times[1]));
        System.out.println(table.get(table.size() - 1));
    }

    /** Every column of every row, read once by plain JDBC. */
    private int read(String... statements) throws SQLException {
        int rows = 0;
        for (String sql : statements) {
            try (Statement query = bare.createStatement();
                    ResultSet row = query.executeQuery(sql)) {
                int columns = row.getMetaData().getColumnCount();
                while (row.next()) {
                    for (int i = 1; i <= columns; i++) {
                        row.getObject(i);
                    }
                    rows++;
                }
            }
        }
        return rows;
    }
}
