package leveltally.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import leveltally.core.printing.Answer;
import leveltally.core.printing.Turn;
import leveltally.core.proof.Law;
import leveltally.server.approval.Approvals;
import leveltally.server.approval.Sending;
import leveltally.server.batches.Batches;
import leveltally.server.batches.Making;
import leveltally.server.batches.NewBatch;
import leveltally.server.checks.Series;
import leveltally.server.posting.Posting;
import leveltally.server.printers.Printers;
import leveltally.server.printing.Numbering;
import leveltally.server.printing.OwnNumbers;
import leveltally.server.printing.Printing;
import leveltally.server.printing.Said;
import leveltally.server.printing.Turns;
import leveltally.server.proof.Proof;
import leveltally.server.selection.Due;
import leveltally.server.selection.DueQuestion;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.simple.JdbcClient;

/**
 * A process that makes batches and prints them one after the other, to be killed at any moment. It takes up first what an
 * earlier one left, and knows of it only what the database and the paper say.
 */
public final class PrintingClerk {
    private static final int CHECKS = 40;

    private final ConfigurableApplicationContext application;
    private final JdbcClient jdbc;
    private final Path paper;
    private final Actor clerk;
    private final Actor approver;
    private final BankAccountId account;

    private PrintingClerk(ConfigurableApplicationContext application, Path paper) {
        this.application = application;
        this.jdbc = application.getBean(JdbcClient.class);
        this.paper = paper;
        this.clerk = person("clerk", Role.CLERK);
        this.approver = person("approver", Role.APPROVER);
        this.account = new BankAccountId(
                jdbc.sql("SELECT id FROM bank_account").query(Long.class).single());
    }

    /** @param args JDBC address, the file that is the paper, and “finish” where nothing new is begun */
    public static void main(String[] args) throws Exception {
        ConfigurableApplicationContext application = BenchCompany.launch(args[0]);
        PrintingClerk clerk = new PrintingClerk(application, Path.of(args[1]));
        System.out.println("at work");
        clerk.takeUp();
        while (args.length < 3) {
            clerk.finish(clerk.approved());
        }
        // the bench loads its invoices without entries, so payables and ledger (L11) were never level
        List<String> findings = application.getBean(Proof.class).run().laws().stream()
                .filter(law -> law.law() != Law.L11)
                .flatMap(law -> law.findings().stream().map(finding -> law.law() + ": " + finding))
                .toList();
        System.out.println("findings of the proof besides L11: " + findings);
        application.close();
    }

    private <T> T bean(Class<T> type) {
        return application.getBean(type);
    }

    private Actor person(String signIn, Role role) {
        long id = jdbc.sql("SELECT id FROM person WHERE sign_in = ?")
                .param(signIn)
                .query(Long.class)
                .single();
        return new Actor(
                new PersonId(id), signIn, Set.of(role), Loader.CHECK_DATE.minusDays(1), Instant.now(), "bench");
    }

    private void takeUp() throws IOException {
        List<Long> left = jdbc.sql(
                        "SELECT id FROM batch WHERE state IN ('DRAFT', 'IN_APPROVAL', 'APPROVED', 'NUMBERED')"
                                + " OR (state = 'POSTED' AND EXISTS (SELECT 1 FROM payment p WHERE p.batch_id = batch.id"
                                + " AND p.state = 'PREPARED')) ORDER BY id")
                .query(Long.class)
                .list();
        for (Long id : left) {
            approve(new BatchId(id));
            finish(new BatchId(id));
        }
    }

    private BatchId approved() {
        String wanted = jdbc
                .sql("SELECT i.id FROM invoice i WHERE i.open_minor > 0"
                        + " AND NOT EXISTS (SELECT 1 FROM reservation r WHERE r.invoice_id = i.id) ORDER BY i.id LIMIT "
                        + CHECKS)
                .query(Long.class)
                .list()
                .stream()
                .map(String::valueOf)
                .collect(Collectors.joining("."));
        DueQuestion question = DueQuestion.of(account.value(), Loader.CHECK_DATE.toString(), "2000-01-01", null)
                .marked(null, wanted);
        var taken = bean(Due.class).select(question, clerk.today());
        BatchId batch = bean(Making.class)
                .make(
                        clerk,
                        new NewBatch(
                                "Killed",
                                "",
                                taken.taken().size(),
                                taken.toPay().toString(),
                                question,
                                null));
        approve(batch);
        return batch;
    }

    private void approve(BatchId batch) {
        if (bean(Batches.class).get(batch).state() == BatchState.DRAFT) {
            bean(Sending.class)
                    .send(clerk, batch, bean(Batches.class).get(batch).version());
        }
        if (bean(Batches.class).get(batch).state() == BatchState.IN_APPROVAL) {
            bean(Approvals.class).approve(approver, batch, bean(Approvals.class).seen(batch));
        }
    }

    /** Numbers what has none, prints what no printer had, looks at the paper, prints again what stayed blank, posts. */
    private void finish(BatchId batch) throws IOException {
        if (count(
                        "SELECT COUNT(*) FROM claim c WHERE c.batch_id = ? AND NOT EXISTS (SELECT 1 FROM payment p"
                                + " WHERE p.claim_id = c.id)",
                        batch)
                > 0) {
            Turn turn = bean(Turns.class).take(clerk, account, batch, "");
            long next =
                    bean(Series.class).of(bean(Batches.class).get(batch).way()).nextNumber();
            bean(Numbering.class).number(clerk, batch, turn.serial(), next, "");
        }
        while (count(
                        "SELECT COUNT(*) FROM document d JOIN check_number n ON n.id = d.check_number_id"
                                + " JOIN print_run r ON r.id = d.run_id WHERE r.batch_id = ? AND n.state = 'TAKEN'",
                        batch)
                > 0) {
            for (long run : ids("SELECT id FROM print_run WHERE batch_id = ? AND sent_at IS NULL", batch)) {
                print(run);
            }
            answer(batch);
            if (count(
                            "SELECT COUNT(*) FROM check_number n JOIN payment p ON p.id = n.payment_id"
                                    + " WHERE p.batch_id = ? AND n.state = 'TAKEN'",
                            batch)
                    > 0) {
                bean(OwnNumbers.class).print(clerk, batch);
            }
        }
        bean(Posting.class).post(clerk, batch);
    }

    /** Opens the pages of a run and prints them sheet by sheet. */
    private void print(long run) throws IOException {
        bean(Printing.class)
                .open(clerk, run, bean(Printers.class).inUse().get(0).id());
        for (long document : jdbc.sql("SELECT id FROM document WHERE run_id = ? ORDER BY position")
                .param(run)
                .query(Long.class)
                .list()) {
            Files.writeString(paper, document + "\n", StandardOpenOption.CREATE, StandardOpenOption.APPEND);
        }
    }

    /** What lies there is good; what does not stayed blank. */
    private void answer(BatchId batch) throws IOException {
        Set<Long> there = new HashSet<>();
        if (Files.exists(paper)) {
            Files.readAllLines(paper).forEach(line -> there.add(Long.valueOf(line)));
        }
        List<Said> said = ids(
                        "SELECT d.id FROM document d JOIN print_run r ON r.id = d.run_id"
                                + " WHERE r.batch_id = ? AND r.sent_at IS NOT NULL AND d.answer IS NULL ORDER BY d.id",
                        batch)
                .stream()
                .map(id -> new Said(id, there.contains(id) ? Answer.GOOD : Answer.BLANK, ""))
                .toList();
        if (!said.isEmpty()) {
            bean(Printing.class).answer(clerk, batch, said, true);
        }
    }

    private long count(String sql, BatchId batch) {
        return jdbc.sql(sql).param(batch.value()).query(Long.class).single();
    }

    private List<Long> ids(String sql, BatchId batch) {
        return jdbc.sql(sql).param(batch.value()).query(Long.class).list();
    }
}
