package leveltally.server.clearing;

import static leveltally.server.App.bean;
import static leveltally.server.clearing.TestBank.account;
import static leveltally.server.clearing.TestBank.check;
import static leveltally.server.clearing.TestBank.clerk;
import static leveltally.server.clearing.TestBank.usd;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import leveltally.core.Refusal;
import leveltally.core.clearing.Answer;
import leveltally.core.money.Money;
import leveltally.server.App;
import leveltally.server.clearing.TestBank.Moved;
import leveltally.server.proof.Proof;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Whatever a bank tells and however it is answered, taken back and undone: on every day bank and ledger differ by nothing that
 * is not named, and what a signed or past day said of outstanding checks stays.
 */
class ReconciledEveryDayTest {
    private static final int DAYS = 9;

    private final List<Long> checks = new ArrayList<>();
    private final List<Money> amounts = new ArrayList<>();

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 4})
    void everyDayIsExplained(int seed) {
        Random random = new Random(seed);
        for (int i = 0; i < 14; i++) {
            String amount = (20 + random.nextInt(900)) + "." + (10 + random.nextInt(90));
            checks.add(check(amount));
            amounts.add(usd(amount));
        }
        LocalDate first = TestBank.nextDay();
        LocalDate day = first;
        for (int i = 0; i < DAYS; i++, day = day.plusDays(1)) {
            if (random.nextBoolean()) {
                tellList(random, day);
            }
            TestBank.statement(day, day, some(random, day, true).toArray(Moved[]::new));
            for (int step = 0; step < 6; step++) {
                act(random, day);
            }
            TestBank.reconciled(day);
            TestBank.reconciled(first.plusDays(random.nextInt(i + 1)));
        }
        explained(first, day.minusDays(1));
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static void explained(LocalDate first, LocalDate until) {
        for (LocalDate day = first.minusDays(1); !day.isAfter(until); day = day.plusDays(1)) {
            TestBank.reconciled(day);
        }
    }

    private void tellList(Random random, LocalDate day) {
        List<Moved> some = some(random, day, false);
        if (!some.isEmpty()) {
            try {
                TestBank.list(some.toArray(Moved[]::new));
            } catch (Refusal readBefore) {
                assertThat(readBefore.code()).isEqualTo("read-already");
            }
        }
    }

    private List<Moved> some(Random random, LocalDate day, boolean statement) {
        List<Moved> some = new ArrayList<>();
        int count = random.nextInt(5);
        for (int i = 0; i < count; i++) {
            int at = random.nextInt(checks.size());
            long number = checks.get(at);
            String amount = amounts.get(at).plain();
            switch (random.nextInt(statement ? 8 : 5)) {
                case 0, 1 -> some.add(Moved.paid(day, number, amount));
                case 2 -> some.add(Moved.paid(day, number, (10 + random.nextInt(500)) + ".00"));
                case 3 -> some.add(new Moved(day, String.valueOf(number), amount, "REVERSED"));
                case 4 -> some.add(Moved.paid(day, 900_000 + random.nextInt(99), amount));
                case 5 -> some.add(new Moved(day, "", "-" + (1 + random.nextInt(9)) + ".50", "FEE"));
                case 6 -> some.add(new Moved(day, "", (1 + random.nextInt(9)) + ".50", "INTEREST"));
                default -> some.add(new Moved(day, "", amount, "GIVEN BACK"));
            }
        }
        return some;
    }

    /** Anything a clerk may do; a refusal is a right answer, too. */
    private void act(Random random, LocalDate day) {
        try {
            switch (random.nextInt(6)) {
                case 0 -> bean(BankReading.class).lookAgain(on(day), account());
                case 1 -> takeBack(random, day);
                case 2 -> voidOne(random, day);
                default -> answerOne(random, day);
            }
        } catch (Refusal refused) {
            assertThat(refused.sentence()).endsWith(".");
        }
    }

    private static leveltally.core.people.Actor on(LocalDate day) {
        return TestBank.on(App.tomas(), day);
    }

    private static void answerOne(Random random, LocalDate day) {
        List<BankExceptions.ExceptionView> open = TestBank.open().shown().stream()
                .filter(one -> !one.answers().isEmpty())
                .toList();
        if (open.isEmpty()) {
            return;
        }
        BankExceptions.ExceptionView one = open.get(random.nextInt(open.size()));
        Answer chosen = one.answers().get(random.nextInt(one.answers().size())).answer();
        List<Answering.MatchedWith> has = chosen == Answer.MATCH
                ? bean(BankExceptions.class).candidates(clerk(), account(), one.id()).stream()
                        .filter(BankExceptions.CandidateView::same)
                        .limit(1)
                        .map(same -> new Answering.MatchedWith(same.kind(), same.of()))
                        .toList()
                : List.of();
        bean(Answering.class)
                .answer(
                        on(day),
                        new Answering.Given(
                                account(),
                                List.of(new Answering.SeenMovement(one.id(), one.version())),
                                chosen,
                                "by chance",
                                chosen.isEntered() ? TestBank.expense() : null,
                                chosen.isEntered() ? day : null,
                                "",
                                String.valueOf(900_000 + random.nextInt(99)),
                                has));
    }

    private static void takeBack(Random random, LocalDate day) {
        record Stood(long id, long version) {}
        List<Stood> stood = App.jdbc()
                .sql("SELECT DISTINCT m.id, m.version FROM bank_movement m JOIN bank_match k ON k.movement_id = m.id"
                        + " WHERE m.bank_account_id = ? AND k.undone_on IS NULL ORDER BY m.id")
                .param(account().value())
                .query(Stood.class)
                .list();
        if (!stood.isEmpty()) {
            Stood one = stood.get(random.nextInt(stood.size()));
            bean(TakingBack.class)
                    .takeBack(on(day), account(), new Answering.SeenMovement(one.id(), one.version()), "by chance");
        }
    }

    private void voidOne(Random random, LocalDate day) {
        long number = checks.get(random.nextInt(checks.size()));
        App.jdbc()
                .sql("SELECT live_payment_id FROM check_number WHERE number = ? AND series_id = ?")
                .params(number, App.series())
                .query(Long.class)
                .optional()
                .ifPresent(payment -> bean(Undoing.class)
                        .undo(
                                on(day),
                                Wanted.broughtBack(new leveltally.core.payments.PaymentId(payment), day),
                                "by chance"));
    }
}
