package leveltally.server;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.persistence.EntityManagerFactory;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import leveltally.core.batches.BatchId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.people.Actor;
import leveltally.core.printing.Answer;
import leveltally.server.approval.Sending;
import leveltally.server.batches.Withdrawing;
import leveltally.server.posting.Posting;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import org.hibernate.SessionFactory;
import org.hibernate.stat.Statistics;
import org.junit.jupiter.api.Test;

/** The number of statements a request needs does not grow with the rows it answers. */
class StatementsTest {
    private static final Http INES = Http.signedIn("ines");

    /** Statements of one request, after a first one has warmed whatever keeps things. */
    private static long statements(String path) {
        return statements(INES, path);
    }

    private static long statements(Http http, String path) {
        http.get(path);
        long before = Asked.soFar();
        assertThat(http.get(path).status()).isEqualTo(200);
        long asked = Asked.soFar() - before;
        assertThat(asked).isPositive();
        return asked;
    }

    @Test
    void due() {
        long account = App.operations().value();
        String due = "/api/due?account=" + account + "&checkDate=2026-11-13&dueBy=";
        assertThat(statements(due + "2026-12-31")).isEqualTo(statements(due + "2026-11-13"));
    }

    private static InvoiceId[] invoices(int count) {
        String[] vendors = {"Bollard Foundry", "Pelorus Charts", "Ironwrack Chain", "Plover Packaging", "Coaming Timber"
        };
        InvoiceId[] many = new InvoiceId[count];
        for (int i = 0; i < many.length; i++) {
            many[i] = App.invoice(vendors[i % vendors.length], "5.00");
        }
        return many;
    }

    @Test
    void batch() {
        BatchId small = App.draft(invoices(40));
        BatchId large = App.draft(invoices(90));
        assertThat(statements("/api/batches/" + large.value())).isEqualTo(statements("/api/batches/" + small.value()));
        assertThat(statements("/api/batches/" + large.value() + "/level"))
                .isEqualTo(statements("/api/batches/" + small.value() + "/level"));
        App.bean(Withdrawing.class).withdraw(App.ines(), small, App.version(small));
        App.bean(Withdrawing.class).withdraw(App.ines(), large, App.version(large));
    }

    @Test
    void approval() {
        BatchId small = App.draft(invoices(40));
        BatchId large = App.draft(invoices(90));
        for (String path : List.of("looks", "route")) {
            assertThat(statements("/api/batches/" + large.value() + "/" + path))
                    .isEqualTo(statements("/api/batches/" + small.value() + "/" + path));
        }
        for (BatchId batch : List.of(small, large)) {
            App.bean(Sending.class).send(App.ines(), batch, App.version(batch));
        }
        assertThat(statements("/api/approval/" + large.value()))
                .isEqualTo(statements("/api/approval/" + small.value()));
        long two = statements("/api/approval");
        App.bean(Withdrawing.class).withdraw(App.ines(), small, App.version(small));
        assertThat(statements("/api/approval")).isEqualTo(two);
        App.bean(Withdrawing.class).withdraw(App.ines(), large, App.version(large));
    }

    /** What Hibernate asks in a deed, many rows of one kind counted as one; a job in the background may ask a little. */
    private static long asked(Runnable deed) {
        Statistics asked = App.bean(EntityManagerFactory.class)
                .unwrap(SessionFactory.class)
                .getStatistics();
        asked.setStatisticsEnabled(true);
        long before = asked.getPrepareStatementCount();
        deed.run();
        long took = asked.getPrepareStatementCount() - before;
        asked.setStatisticsEnabled(false);
        return took;
    }

    /** Whoever undoes them on the day the checks have. */
    private static Actor onTheDay() {
        Actor ines = App.ines();
        return new Actor(ines.person(), ines.name(), ines.roles(), App.CHECK_DATE, Instant.now(), ines.from());
    }

    private static Wanted allOf(BatchId batch) {
        return new Wanted(
                App.jdbc()
                        .sql("SELECT id FROM payment WHERE batch_id = ?")
                        .param(batch.value())
                        .query((r, n) -> new Wanted.One(r.getLong("id"), List.of()))
                        .list(),
                App.CHECK_DATE,
                Wanted.Fate.OPEN,
                null,
                null);
    }

    @Test
    void numbersAnswersPostingAndUndoing() {
        List<String> vendors = App.jdbc()
                .sql(
                        "SELECT name FROM vendor v WHERE method = 'CHECK' AND hold_reason IS NULL AND merged_into_id IS NULL"
                                + " AND NOT one_time AND (SELECT COUNT(*) FROM remit_to r WHERE r.vendor_id = v.id) = 1"
                                + " AND EXISTS (SELECT 1 FROM remit_to r WHERE r.vendor_id = v.id AND r.in_force) ORDER BY id LIMIT 32")
                .query(String.class)
                .list();
        List<List<Long>> all = new ArrayList<>();
        for (int checks : List.of(2, 32)) {
            InvoiceId[] apart = new InvoiceId[checks];
            for (int i = 0; i < apart.length; i++) {
                apart[i] = App.invoice(vendors.get(i), "6.00");
            }
            BatchId batch = App.draft(apart);
            App.bean(Sending.class).send(App.ines(), batch, App.version(batch));
            App.approve(batch);
            List<Long> runs = new ArrayList<>();
            long numbered = asked(() -> runs.add(App.numbered(batch)));
            App.handOver(runs.get(0));
            List<Long> sheets = App.documents(runs.get(0));
            assertThat(sheets).hasSize(apart.length);
            long answered = asked(() -> App.answer(batch, sheets, Answer.GOOD, ""));
            long posted = asked(() -> App.bean(Posting.class).post(App.ines(), batch));
            Wanted voided = allOf(batch);
            all.add(List.of(
                    numbered,
                    answered,
                    posted,
                    asked(() -> App.bean(Undoing.class).undo(onTheDay(), voided, "printed on the wrong day"))));
        }
        for (int deed = 0; deed < 4; deed++) {
            assertThat(all.get(1).get(deed)).as("%s", all).isLessThan(all.get(0).get(deed) + 8);
        }
    }

    @Test
    void trail() {
        Http priya = Http.signedIn("priya");
        String deed = "/api/trail?deed=enter%20invoice";
        assertThat(statements(priya, deed)).isEqualTo(statements(priya, deed + "&before=250"));
    }

    @Test
    void register() {
        String register = "/api/checks?series=" + App.series();
        long first = statements(register);
        assertThat(statements(register + "&state=CLEARED")).isEqualTo(first);
        assertThat(statements(register + "&text=rigging%2041")).isEqualTo(statements(register + "&text=rigging"));
        // sorted by what is in no index of the register, a page takes no more
        String after = "&after=" + App.number("SELECT MAX(id) FROM check_number WHERE series_id = " + App.series());
        assertThat(statements(register + "&sortedBy=AMOUNT")).isEqualTo(first);
        assertThat(statements(register + "&sortedBy=AMOUNT" + after)).isEqualTo(statements(register + after));
    }

    @Test
    void vendors() {
        assertThat(statements("/api/vendors/list")).isEqualTo(statements("/api/vendors/list?text=e"));
    }

    @Test
    void search() {
        assertThat(statements("/api/search?text=er")).isEqualTo(statements("/api/search?text=Oakum"));
    }

    @Test
    void setUpAndABankAccount() {
        Http joss = Http.signedIn("joss");
        String account = "/api/bank-accounts/" + App.operations().value();
        long alone = statements(joss, account);
        String holidays = IntStream.rangeClosed(1, 60)
                .mapToObj(day -> java.time.LocalDate.of(2027, 1, 1).plusDays(day) + " A day off")
                .collect(Collectors.joining("\\n", "{\"text\": \"", "\"}"));
        assertThat(joss.post(account + "/holidays", holidays).status()).isEqualTo(200);
        assertThat(statements(joss, account)).isEqualTo(alone);
        assertThat(statements(joss, "/api/setup")).isLessThan(25);
    }
}
