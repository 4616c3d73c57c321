package leveltally.bench;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Set;
import leveltally.core.people.Actor;
import leveltally.core.people.Role;
import leveltally.server.bankfiles.BankFiles;
import leveltally.server.ledger.BankAccountSetup;
import org.springframework.context.ConfigurableApplicationContext;

/**
 * A positive pay file made of everything that waits, from the rows to the kept bytes, beside the same rows read, written to a
 * file and put down by plain JDBC under the same triggers.
 */
public final class TellingBench {
    private static final int EVENTS = Integer.getInteger("events", 1_000_000);
    private static final int WARM = Math.min(EVENTS, 50_000);
    private static final int AT_ONCE = 1_000;
    private static final int BUFFER = 1 << 16;
    private static final int PART = 1 << 20;
    private static final int RECORD = 80;

    private final BenchCompany company;
    private final Connection root;
    private final String database;

    private TellingBench(BenchCompany company, Connection root, String database) {
        this.company = company;
        this.root = root;
        this.database = database;
    }

    /** @param args JDBC address, file for the table */
    public static void main(String[] args) throws Exception {
        ConfigurableApplicationContext context = BenchCompany.launch(args[0]);
        try (Connection root = DriverManager.getConnection(args[0] + "?useBulkStmts=true", "root", "")) {
            new Loader(root).company();
            root.commit();
            root.setAutoCommit(true);
            BenchCompany company = BenchCompany.in(context, root);
            new PaymentLoader(root, company.account().value()).upTo(EVENTS);
            TellingBench bench = new TellingBench(company, root, args[0]);
            bench.positivePay();
            bench.ours(WARM);
            bench.bare(WARM);
            double ours = bench.ours(EVENTS);
            System.gc();
            Runtime memory = Runtime.getRuntime();
            long used = (memory.totalMemory() - memory.freeMemory()) >> 20;
            double bare = bench.bare(EVENTS);
            List<String> table = List.of(
                    "| events | ours | bare rows and file | ratio | memory after |",
                    "| ---: | ---: | ---: | ---: | ---: |",
                    "| %,d | %.0f ms | %.0f ms | %.2f | %d MiB |".formatted(EVENTS, ours, bare, ours / bare, used));
            table.forEach(System.out::println);
            Files.write(Path.of(args[1]), table);
        } finally {
            context.close();
        }
    }

    private void run(String sql) throws SQLException {
        try (Statement statement = root.createStatement()) {
            statement.execute(sql);
        }
    }

    private long number(String sql) throws SQLException {
        try (Statement statement = root.createStatement();
                ResultSet row = statement.executeQuery(sql)) {
            row.next();
            return row.getLong(1);
        }
    }

    private void positivePay() throws SQLException {
        Actor clerk = company.clerk();
        long layout = number("SELECT id FROM bank_file_layout WHERE name LIKE '80 characters%'");
        company.context()
                .getBean(BankAccountSetup.class)
                .positivePay(
                        new Actor(
                                clerk.person(),
                                clerk.name(),
                                Set.of(Role.ADMINISTRATOR),
                                clerk.today(),
                                clerk.now(),
                                "bench"),
                        company.account(),
                        layout,
                        "80 characters");
    }

    /** So many events wait, and no file is made yet. */
    private void waiting(int events) throws SQLException {
        run("TRUNCATE TABLE bank_file_part");
        run("TRUNCATE TABLE bank_file_item");
        run("TRUNCATE TABLE bank_event");
        run(
                "INSERT INTO bank_event (id, bank_account_id, check_number_id, batch_id, kind, currency, amount_minor, event_date,"
                        + " payee, version) SELECT n.id, p.bank_account_id, n.id, p.batch_id, 'ISSUE', p.currency, p.amount_minor,"
                        + " p.check_date, p.payee, 0 FROM check_number n JOIN payment p ON p.id = n.payment_id WHERE n.number <= "
                        + events);
        run("ANALYZE TABLE bank_event, bank_file_item");
    }

    private double ours(int events) throws Exception {
        waiting(events);
        BankFiles files = company.context().getBean(BankFiles.class);
        return Rounds.timed(() -> {
            long file = files.make(company.clerk(), company.account());
            return Math.toIntExact(file % AT_ONCE);
        });
    }

    private double bare(int events) throws Exception {
        waiting(events);
        // a file like the last one, whose parts and items are written by plain statements
        run(
                "CREATE OR REPLACE TEMPORARY TABLE next_file SELECT * FROM bank_file WHERE id < 1000000000000 ORDER BY id DESC LIMIT 1");
        run("UPDATE next_file SET id = id + 1000000000000, serial = serial + 1000");
        run("INSERT INTO bank_file SELECT * FROM next_file");
        long file = number("SELECT id FROM next_file");
        Path path = Files.createTempFile("told", ".file");
        try (Connection reads = DriverManager.getConnection(database, "leveltally_app", BenchCompany.PASSWORD);
                Connection writes = DriverManager.getConnection(database, "leveltally_app", BenchCompany.PASSWORD)) {
            writes.setAutoCommit(false);
            return Rounds.timed(() -> {
                int told = told(reads, writes, file, path);
                kept(writes, file, path);
                writes.commit();
                return told;
            });
        } finally {
            Files.delete(path);
        }
    }

    private int told(Connection reads, Connection writes, long file, Path path) throws SQLException, IOException {
        int position = 0;
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(path), BUFFER);
                Statement query = reads.createStatement();
                PreparedStatement item = writes.prepareStatement(
                        "INSERT INTO bank_file_item (file_id, event_id, position) VALUES (?, ?, ?)");
                PreparedStatement event = writes.prepareStatement(
                        "UPDATE bank_event SET file_id = ?, version = version + 1 WHERE id = ?")) {
            query.setFetchSize(AT_ONCE);
            out.write(line("first"));
            try (ResultSet row =
                    query.executeQuery("SELECT e.id, n.number, e.amount_minor, p.check_date, e.payee FROM bank_event e"
                            + " JOIN check_number n ON n.id = e.check_number_id JOIN payment p ON p.id = n.payment_id"
                            + " WHERE e.bank_account_id = " + company.account().value()
                            + " AND e.file_id IS NULL ORDER BY n.number, e.kind, e.id")) {
                while (row.next()) {
                    out.write(line(
                            row.getLong(2) + " " + row.getLong(3) + " " + row.getString(4) + " " + row.getString(5)));
                    item.setLong(1, file);
                    item.setLong(2, row.getLong(1));
                    item.setInt(3, ++position);
                    item.addBatch();
                    event.setLong(1, file);
                    event.setLong(2, row.getLong(1));
                    event.addBatch();
                    if (position % AT_ONCE == 0) {
                        item.executeBatch();
                        event.executeBatch();
                    }
                }
            }
            item.executeBatch();
            event.executeBatch();
            out.write(line("last"));
        }
        return position;
    }

    /** As long as a record of ours. */
    private static byte[] line(String text) {
        return (text + " ".repeat(RECORD - text.length()) + "\r\n").getBytes(StandardCharsets.ISO_8859_1);
    }

    private static void kept(Connection writes, long file, Path path) throws SQLException, IOException {
        int position = 0;
        try (InputStream content = Files.newInputStream(path);
                PreparedStatement part = writes.prepareStatement(
                        "INSERT INTO bank_file_part (file_id, position, content) VALUES (?, ?, ?)")) {
            for (byte[] some = content.readNBytes(PART); some.length > 0; some = content.readNBytes(PART)) {
                part.setLong(1, file);
                part.setInt(2, ++position);
                part.setBytes(3, some);
                part.executeUpdate();
            }
        }
    }
}
