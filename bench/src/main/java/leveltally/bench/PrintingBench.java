package leveltally.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Claim;
import leveltally.core.paper.CheckText;
import leveltally.core.paper.Page;
import leveltally.core.paper.StandardLayouts;
import leveltally.core.people.Actor;
import leveltally.core.printing.Answer;
import leveltally.core.printing.Turn;
import leveltally.server.approval.Approvals;
import leveltally.server.approval.Sending;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Making;
import leveltally.server.batches.NewBatch;
import leveltally.server.checks.Series;
import leveltally.server.paper.CheckPages;
import leveltally.server.posting.Posting;
import leveltally.server.printers.Printers;
import leveltally.server.printing.Answers;
import leveltally.server.printing.Numbering;
import leveltally.server.printing.Printing;
import leveltally.server.printing.Said;
import leveltally.server.printing.Turns;
import leveltally.server.selection.Due;
import leveltally.server.selection.DueQuestion;
import org.springframework.context.ConfigurableApplicationContext;

/** A large batch onto paper and into the ledger, each deed beside the bare pages, inserts and updates it consists of. */
public final class PrintingBench {
    private final BenchCompany company;
    private final Connection root;
    private final Connection bare;
    private final List<String> table = new ArrayList<>();

    private PrintingBench(BenchCompany company, Connection root, Connection bare) {
        this.company = company;
        this.root = root;
        this.bare = bare;
    }

    /** @param args JDBC address, file for the table, rounds, then the numbers of invoices */
    public static void main(String[] args) throws Exception {
        ConfigurableApplicationContext context = BenchCompany.launch(args[0]);
        String server = args[0].substring(0, args[0].lastIndexOf('/') + 1);
        try (Connection root = DriverManager.getConnection(server + "leveltally?useBulkStmts=true", "root", "");
                Connection bare = DriverManager.getConnection(args[0], "leveltally_app", BenchCompany.PASSWORD)) {
            Loader loader = new Loader(root);
            loader.company();
            PrintingBench bench = new PrintingBench(BenchCompany.in(context, root), root, bare);
            int rounds = Integer.parseInt(args[2]);
            for (int size :
                    Arrays.stream(args).skip(3).mapToInt(Integer::parseInt).toArray()) {
                for (int i = 0; i <= rounds; i++) {
                    loader.more(size, size);
                    bench.round();
                }
            }
            Files.write(Path.of(args[1]), bench.table);
        } finally {
            context.close();
        }
    }

    private <T> T bean(Class<T> type) {
        return company.context().getBean(type);
    }

    private Actor clerk() {
        return company.clerk();
    }

    private void round() throws Exception {
        BatchId batch = approved();
        Stopwatch watch = new Stopwatch();
        Turn turn = bean(Turns.class).take(clerk(), company.account(), batch, "");
        long next = bean(Series.class).of(bean(Batches.class).get(batch).way()).nextNumber();
        long run = bean(Numbering.class)
                .number(clerk(), batch, turn.serial(), next, "")
                .run();
        double numbered = watch.lap();
        byte[] pdf = bean(Printing.class)
                .open(clerk(), run, bean(Printers.class).inUse().get(0).id());
        double drawn = watch.lap();
        List<Page> pages = pages(batch, next);
        watch.lap();
        int bareBytes = BarePages.write(pages).length;
        double barePages = watch.lap();
        List<Said> good = documents(run).stream()
                .map(document -> new Said(document, Answer.GOOD, ""))
                .toList();
        watch.lap();
        bean(Answers.class).answer(clerk(), batch, good);
        double answered = watch.lap();
        bean(Posting.class).post(clerk(), batch);
        double posted = watch.lap();
        System.out.printf(
                "%,d checks: numbers %.0f ms, pages %.0f ms (%,d bytes; bare %.0f ms, %,d bytes), answers %.0f ms, posting %.0f ms, heap %d MiB%n",
                good.size(),
                numbered,
                drawn,
                pdf.length,
                barePages,
                bareBytes,
                answered,
                posted,
                (Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory()) >> 20);
    }

    /** What the checks of a batch show, laid out beforehand. */
    private List<Page> pages(BatchId id, long first) {
        Batch batch = bean(Batches.class).get(id);
        CheckPages drawing = bean(CheckPages.class);
        List<Claim> claims = bean(ClaimRows.class).of(id);
        var stubs = bean(ClaimRows.class).stubs(claims);
        var payer = drawing.payer(batch.account(), batch.way());
        var paper = drawing.paper(batch.account(), batch.way());
        List<Page> pages = new ArrayList<>();
        for (Claim claim : claims) {
            CheckText text =
                    CheckText.of(payer, claim, batch.checkDate(), first + pages.size(), stubs.get(claim.id()), null);
            pages.add(drawing.forThePrinter(text, StandardLayouts.LETTER, paper, null));
        }
        return pages;
    }

    private List<Long> documents(long run) throws Exception {
        List<Long> ids = new ArrayList<>();
        try (var query = bare.prepareStatement("SELECT id FROM document WHERE run_id = ? ORDER BY position")) {
            query.setLong(1, run);
            try (var row = query.executeQuery()) {
                while (row.next()) {
                    ids.add(row.getLong("id"));
                }
            }
        }
        return ids;
    }

    private BatchId approved() {
        DueQuestion question = DueQuestion.of(
                company.account().value(),
                Loader.CHECK_DATE.toString(),
                Loader.DUE_BY.toString(),
                Loader.NEXT_RUN.toString());
        var taken = bean(Due.class).select(question, clerk().today());
        BatchId batch = bean(Making.class)
                .make(
                        clerk(),
                        new NewBatch(
                                "Bench", "", taken.taken().size(), taken.toPay().toString(), question, null));
        bean(Sending.class).send(clerk(), batch, bean(Batches.class).get(batch).version());
        bean(Approvals.class)
                .approve(company.approver(), batch, bean(Approvals.class).seen(batch));
        return batch;
    }

    /** Milliseconds from lap to lap. */
    private static final class Stopwatch {
        private long last = System.nanoTime();

        double lap() {
            long now = System.nanoTime();
            double took = (now - last) / 1e6;
            last = now;
            return took;
        }
    }
}
