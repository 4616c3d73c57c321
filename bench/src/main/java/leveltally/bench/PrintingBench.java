package leveltally.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.ToDoubleFunction;
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
    private static final int LARGE = 10_000;

    private final BenchCompany company;
    private final Connection root;
    private final Connection bare;
    private final List<String> table = new ArrayList<>();

    private PrintingBench(BenchCompany company, Connection root, Connection bare) {
        this.company = company;
        this.root = root;
        this.bare = bare;
    }

    /** @param args JDBC address, file for the table, rounds, then about how many checks */
    public static void main(String[] args) throws Exception {
        ConfigurableApplicationContext context = BenchCompany.launch(args[0]);
        try (Connection root = DriverManager.getConnection(args[0] + "?useBulkStmts=true", "root", "");
                Connection bare = DriverManager.getConnection(args[0], "leveltally_app", BenchCompany.PASSWORD)) {
            Loader loader = new Loader(root);
            loader.company();
            PrintingBench bench = new PrintingBench(BenchCompany.in(context, root), root, bare);
            bench.table.add(
                    "| checks | numbers and pages | bare pages | ratio | answer all | bare updates | ratio | post |"
                            + " bare inserts | ratio | memory after |");
            bench.table.add("| ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: | ---: |");
            int count = Integer.parseInt(args[2]);
            for (int size :
                    Arrays.stream(args).skip(3).mapToInt(Integer::parseInt).toArray()) {
                List<Round> rounds = new ArrayList<>();
                // the first warms up; a very large one is warm by then, and shows what it takes of memory
                int warm = size > LARGE ? 0 : 1;
                for (int i = 0; i < warm + (size > LARGE ? 1 : count); i++) {
                    loader.more(size, size);
                    rounds.add(bench.round());
                }
                bench.table.add(row(rounds.subList(warm, rounds.size())));
                System.out.println(bench.table.get(bench.table.size() - 1));
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

    /** Milliseconds of each deed of one batch, ours and bare, and the megabytes in use after it. */
    private record Round(
            int checks,
            double numbers,
            double pages,
            double barePages,
            double answers,
            double bareAnswers,
            double posting,
            double barePosting,
            long used) {}

    private Round round() throws Exception {
        BatchId batch = approved();
        BareDeeds deeds = new BareDeeds(root, bare, batch.value());
        Stopwatch watch = new Stopwatch();
        Turn turn = bean(Turns.class).take(clerk(), company.account(), batch, "");
        long next = bean(Series.class).of(bean(Batches.class).get(batch).way()).nextNumber();
        long run = bean(Numbering.class)
                .number(clerk(), batch, turn.serial(), next, "")
                .run();
        double numbers = watch.lap();
        bean(Printing.class)
                .open(clerk(), run, bean(Printers.class).inUse().get(0).id());
        double pages = watch.lap();
        double barePages = barePages(batch, next);
        List<Said> good = documents(run).stream()
                .map(document -> new Said(document, Answer.GOOD, ""))
                .toList();
        watch.lap();
        bean(Answers.class).answer(clerk(), batch, good);
        double answers = watch.lap();
        double bareAnswers = deeds.answers();
        deeds.beforePosting();
        watch.lap();
        bean(Posting.class).post(clerk(), batch);
        double posting = watch.lap();
        double barePosting = deeds.posting();
        System.gc();
        Runtime memory = Runtime.getRuntime();
        Round round = new Round(
                good.size(),
                numbers,
                pages,
                barePages,
                answers,
                bareAnswers,
                posting,
                barePosting,
                (memory.totalMemory() - memory.freeMemory()) >> 20);
        System.out.println(round);
        return round;
    }

    /** Medians of some rounds, as a row of the table. */
    private static String row(List<Round> rounds) {
        double paper = median(rounds, one -> one.numbers() + one.pages());
        double barePages = median(rounds, Round::barePages);
        double answers = median(rounds, Round::answers);
        double bareAnswers = median(rounds, Round::bareAnswers);
        double posting = median(rounds, Round::posting);
        double barePosting = median(rounds, Round::barePosting);
        return "| %,d | %.0f ms | %.0f ms | %.2f | %.0f ms | %.0f ms | %.2f | %.0f ms | %.0f ms | %.2f | %d MiB |"
                .formatted(
                        rounds.get(0).checks(),
                        paper,
                        barePages,
                        paper / barePages,
                        answers,
                        bareAnswers,
                        answers / bareAnswers,
                        posting,
                        barePosting,
                        posting / barePosting,
                        rounds.stream().mapToLong(Round::used).max().orElse(0));
    }

    private static double median(List<Round> rounds, ToDoubleFunction<Round> of) {
        return rounds.stream().mapToDouble(of).sorted().toArray()[rounds.size() / 2];
    }

    /** Milliseconds of writing what the checks of a batch show; each page is laid out before it is timed. */
    private double barePages(BatchId id, long first) throws Exception {
        Batch batch = bean(Batches.class).get(id);
        CheckPages drawing = bean(CheckPages.class);
        List<Claim> claims = bean(ClaimRows.class).of(id);
        var stubs = bean(ClaimRows.class).stubs(claims);
        var payer = drawing.payer(batch.account(), batch.way());
        var paper = drawing.paper(batch.account(), batch.way());
        Stopwatch watch = new Stopwatch();
        try (BarePages pages = new BarePages()) {
            double took = watch.lap();
            long number = first;
            for (Claim claim : claims) {
                CheckText text = CheckText.of(payer, claim, batch.checkDate(), number++, stubs.get(claim.id()), null);
                Page page = drawing.forThePrinter(text, StandardLayouts.LETTER, paper, null);
                watch.lap();
                pages.add(page);
                took += watch.lap();
            }
            pages.save();
            return took + watch.lap();
        }
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
