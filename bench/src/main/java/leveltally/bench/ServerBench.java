package leveltally.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import leveltally.core.batches.BatchId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.server.approval.Approvals;
import leveltally.server.approval.Sending;
import leveltally.server.approval.Verification;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Making;
import leveltally.server.batches.NewBatch;
import leveltally.server.batches.Withdrawing;
import leveltally.server.selection.CandidateRows;
import leveltally.server.selection.Due;
import leveltally.server.selection.DueQuestion;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.namedparam.MapSqlParameterSource;
import org.springframework.jdbc.core.namedparam.NamedParameterUtils;

/** The application on a loaded database, each deed beside the bare JDBC that reads or writes the same rows. */
public final class ServerBench {
    private static final int ROUNDS = 9;
    private static final int APPROVALS = 5;
    private static final int SCROLLED = 100_000;
    private static final int NARROW = 5;
    private final ConfigurableApplicationContext context;
    private final Connection root;
    private final Connection bare;
    private final List<String> table = new ArrayList<>();
    private Actor clerk;
    private Actor approver;
    private BankAccountId account;
    private SignedIn desk;
    private String scrolled = "";
    private String narrow = "";
    private final List<String> approvals = new ArrayList<>();
    private final List<String> searches = new ArrayList<>();

    private ServerBench(ConfigurableApplicationContext context, Connection root, Connection bare) {
        this.context = context;
        this.root = root;
        this.bare = bare;
    }

    /** @param args JDBC address, file for the table, then the numbers of invoices */
    public static void main(String[] args) throws Exception {
        ConfigurableApplicationContext context = BenchCompany.launch(args[0]);
        String server = args[0].substring(0, args[0].lastIndexOf('/') + 1);
        try (Connection root = DriverManager.getConnection(server + "leveltally?useBulkStmts=true", "root", "");
                Connection bare = DriverManager.getConnection(args[0], "leveltally_app", BenchCompany.PASSWORD)) {
            ServerBench bench = new ServerBench(context, root, bare);
            bench.run(Arrays.stream(args).skip(2).mapToInt(Integer::parseInt).toArray());
            Files.write(Path.of(args[1]), bench.table);
        } finally {
            context.close();
        }
    }

    private <T> T bean(Class<T> type) {
        return context.getBean(type);
    }

    private void run(int[] sizes) throws Exception {
        Loader loader = new Loader(root);
        loader.company();
        people();
        table.add(
                "| open invoices | criteria take 10,000 | bare query | ratio | make the batch | bare inserts | ratio |"
                        + " first page of Due | a further page |");
        table.add("| ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: |");
        searches.add(
                "| open invoices | search by the beginning of a reference, all kinds of things | bare look-up | ratio |"
                        + " by digits of one | by an amount |");
        searches.add("| ---: | ---: | ---: | ---: | ---: | ---: |");
        double firstSmall = 0;
        for (int size : sizes) {
            long start = System.nanoTime();
            loader.invoices(size);
            System.out.printf("%,d invoices loaded in %.1f s%n", size, (System.nanoTime() - start) / 1e9);
            firstSmall = measure(size, firstSmall);
            search(size);
            if (size == sizes[0]) {
                approval();
            }
            if (size == SCROLLED) {
                String due = "/due?check=" + Loader.CHECK_DATE + "&due=" + Loader.DUE_BY.plusDays(400) + "&next=none";
                scrolled = ScrollBench.run(desk.base, due, desk.cookies());
                System.out.println(scrolled);
                narrow(loader);
            }
        }
        table.add("");
        table.addAll(searches);
        table.add("");
        table.addAll(approvals);
        table.add("");
        table.add(narrow);
        table.add("");
        table.add(scrolled);
    }

    /** The search of everything, by what people know of an invoice, beside the bare look-up of one index. */
    private void search(int size) throws Exception {
        String known = String.valueOf(size / 2 + 1);
        int[] round = {0};
        double[] beginning = beside(
                () -> get("/api/search?text=R-" + known),
                () -> bareLookUp("SELECT id, reference, amount_minor FROM invoice WHERE reference LIKE 'R-" + known
                        + "%' ORDER BY reference LIMIT 8"));
        double end = median(() -> get("/api/search?text=" + known + ++round[0] % 10));
        double amount = median(() -> get("/api/search?text=" + (1_000 + ++round[0]) + ".00"));
        searches.add("| %,d | %.1f ms | %.1f ms | %.1f | %.1f ms | %.1f ms |"
                .formatted(size, beginning[0], beginning[1], beginning[0] / beginning[1], end, amount));
        System.out.println(searches.get(searches.size() - 1));
    }

    private int bareLookUp(String sql) throws Exception {
        int rows = 0;
        try (Statement query = bare.createStatement();
                ResultSet row = query.executeQuery(sql)) {
            while (row.next()) {
                rows++;
            }
        }
        return rows;
    }

    /** Five people ask at one moment for other lists of the most a list can hold, each narrowed to one day. */
    private void narrow(Loader loader) throws Exception {
        loader.invoices(CandidateRows.MOST);
        ExecutorService five = Executors.newFixedThreadPool(NARROW);
        List<Callable<Integer>> asked = IntStream.rangeClosed(1, NARROW)
                .mapToObj(n -> (Callable<Integer>) () -> get("/api/due?account=" + account.value() + "&checkDate="
                        + Loader.CHECK_DATE + "&dueBy=" + Loader.DUE_BY.plusDays(400 + n) + "&days=" + Loader.DUE_BY))
                .toList();
        double all = timed(() -> {
            for (Future<Integer> one : five.invokeAll(asked)) {
                one.get();
            }
            return 0;
        });
        five.shutdown();
        System.gc();
        Runtime memory = Runtime.getRuntime();
        narrow =
                "Five narrow views of %,d open invoices, asked for at one moment: all answered after %.1f s; %d of %d MiB used after."
                        .formatted(
                                CandidateRows.MOST,
                                all / 1_000,
                                (memory.totalMemory() - memory.freeMemory()) >> 20,
                                memory.maxMemory() >> 20);
        System.out.println(narrow);
    }

    /** Sending, looking at and approving a large batch, beside reading the same claims and lines bare. */
    private void approval() throws Exception {
        double[][] times = new double[5][APPROVALS];
        int claims = 0;
        for (int i = -1; i < APPROVALS; i++) {
            BatchId batch = bean(Making.class).make(clerk, wanted());
            long version = bean(Batches.class).get(batch).version();
            double[] one = {
                timed(() -> {
                    bean(Sending.class).send(clerk, batch, version);
                    return 0;
                }),
                timed(() -> get("/api/approval/" + batch.value())),
                timed(() -> bareRead(batch)),
                timed(() -> {
                    bean(Approvals.class)
                            .approve(approver, batch, bean(Approvals.class).seen(batch));
                    return 0;
                }),
                timed(() -> {
                    var claimsOf = bean(ClaimRows.class).of(batch);
                    bean(Verification.class).verify(bean(Batches.class).get(batch), claimsOf);
                    return claimsOf.size();
                })
            };
            claims = bean(ClaimRows.class).of(batch).size();
            bean(Withdrawing.class)
                    .withdraw(clerk, batch, bean(Batches.class).get(batch).version());
            for (int j = 0; i >= 0 && j < one.length; j++) {
                times[j][i] = one[j];
            }
        }
        for (double[] one : times) {
            Arrays.sort(one);
        }
        double bareTime = times[2][APPROVALS / 2];
        approvals.add("| payments in one batch | bare read of claims and lines | send, with marks | ratio |"
                + " approver's page | ratio | approve | ratio | verify all digests | ratio |");
        approvals.add("| ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: |");
        StringBuilder row = new StringBuilder("| %,d | %.0f ms |".formatted(claims, bareTime));
        for (int j : new int[] {0, 1, 3, 4}) {
            double median = times[j][APPROVALS / 2];
            row.append(" %.0f ms | %.1f |".formatted(median, median / bareTime));
        }
        approvals.add(row.toString());
        approvals.forEach(System.out::println);
    }

    /** Every column of every claim and line of a batch, read once by plain JDBC. */
    private int bareRead(BatchId batch) throws Exception {
        int rows = 0;
        try (PreparedStatement query = bare.prepareStatement(
                "SELECT c.*, l.* FROM claim c JOIN claim_line l ON l.claim_id = c.id WHERE c.batch_id = ?")) {
            query.setLong(1, batch.value());
            try (ResultSet row = query.executeQuery()) {
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

    private void people() throws Exception {
        BenchCompany company = BenchCompany.in(context, root);
        clerk = company.clerk();
        approver = company.approver();
        account = company.account();
        desk = new SignedIn(context);
    }

    private int get(String path) throws Exception {
        return desk.get(path);
    }

    private DueQuestion question() {
        return DueQuestion.of(
                account.value(), Loader.CHECK_DATE.toString(), Loader.DUE_BY.toString(), Loader.NEXT_RUN.toString());
    }

    private double measure(int size, double firstSmall) throws Exception {
        Due due = bean(Due.class);
        int taken = due.select(question(), clerk.today()).taken().size();
        if (taken != Loader.QUALIFYING) {
            throw new IllegalStateException("the criteria take " + taken);
        }
        double[] select =
                beside(() -> due.select(question(), clerk.today()).rows().size(), this::bareQuery);
        double[] make = makeBesideBareInserts();
        String due_ = "/api/due?account=" + account.value() + "&checkDate=" + Loader.CHECK_DATE + "&dueBy="
                + Loader.DUE_BY + "&nextRun=" + Loader.NEXT_RUN;
        double first = median(() -> get(due_));
        int[] page = {0};
        double further = median(() -> get(due_.replace("/due?", "/due/rows?") + "&from=" + 100 * ++page[0]));
        table.add(("| %,d | %.0f ms | %.0f ms | %.2f | %.0f ms | %.0f ms | %.2f | %.0f ms%s | %.0f ms |")
                .formatted(
                        size,
                        select[0],
                        select[1],
                        select[0] / select[1],
                        make[0],
                        make[1],
                        make[0] / make[1],
                        first,
                        firstSmall == 0 ? "" : " (%.2f × the smallest)".formatted(first / firstSmall),
                        further));
        System.out.println(table.get(table.size() - 1));
        return firstSmall == 0 ? first : firstSmall;
    }

    private static double[] beside(Callable<Integer> ours, Callable<Integer> bare) throws Exception {
        return new Rounds(ROUNDS).beside(ours, bare);
    }

    private static double median(Callable<Integer> deed) throws Exception {
        return beside(deed, () -> 0)[0];
    }

    private static double timed(Callable<Integer> deed) throws Exception {
        return Rounds.timed(deed);
    }

    /** The statement of the criteria and nothing else: every column of every row is read once. */
    private int bareQuery() throws Exception {
        var criteria = bean(Due.class).criteria(question(), clerk.today());
        CandidateRows.Statement statement = CandidateRows.statement(criteria, 0);
        var params = new MapSqlParameterSource(statement.params());
        var parsed = NamedParameterUtils.parseSqlStatement(statement.sql());
        String sql = NamedParameterUtils.substituteNamedParameters(parsed, params);
        Object[] values = NamedParameterUtils.buildValueArray(parsed, params, null);
        int rows = 0;
        try (PreparedStatement query = bare.prepareStatement(sql)) {
            for (int i = 0; i < values.length; i++) {
                query.setObject(i + 1, values[i]);
            }
            try (ResultSet row = query.executeQuery()) {
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

    private NewBatch wanted() {
        String toPay = bean(Due.class).select(question(), clerk.today()).toPay().toString();
        return new NewBatch("Bench", "", Loader.QUALIFYING, toPay, question(), null);
    }

    private double[] makeBesideBareInserts() throws Exception {
        double[] ours = new double[ROUNDS];
        double[] plain = new double[ROUNDS];
        Making making = bean(Making.class);
        Withdrawing withdrawing = bean(Withdrawing.class);
        Batches batches = bean(Batches.class);
        for (int i = -2; i < ROUNDS; i++) {
            NewBatch wanted = wanted();
            long start = System.nanoTime();
            BatchId made = making.make(clerk, wanted);
            double first = (System.nanoTime() - start) / 1e6;
            BareRows rows = BareRows.of(root, made.value());
            withdrawing.withdraw(clerk, made, batches.get(made).version());
            rows.remove(root);
            double second = rows.insert(bare);
            rows.remove(root);
            if (i >= 0) {
                ours[i] = first;
                plain[i] = second;
            }
        }
        Arrays.sort(ours);
        Arrays.sort(plain);
        return new double[] {ours[ROUNDS / 2], plain[ROUNDS / 2]};
    }
}
