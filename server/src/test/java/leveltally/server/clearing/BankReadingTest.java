package leveltally.server.clearing;

import static leveltally.server.App.bean;
import static leveltally.server.App.number;
import static leveltally.server.clearing.TestBank.account;
import static leveltally.server.clearing.TestBank.check;
import static leveltally.server.clearing.TestBank.clerk;
import static leveltally.server.clearing.TestBank.exception;
import static leveltally.server.clearing.TestBank.list;
import static leveltally.server.clearing.TestBank.stateOf;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import leveltally.core.Refusal;
import leveltally.core.clearing.Answer;
import leveltally.core.clearing.ExceptionKind;
import leveltally.server.App;
import leveltally.server.clearing.TestBank.Moved;
import leveltally.server.proof.Proof;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Files of the bank and what is typed: once, whole, of this account, one after the other. */
class BankReadingTest {
    private static final LocalDate DAY = LocalDate.of(2026, 11, 19);

    @AfterEach
    void theProofIsClean() {
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    @Test
    void theSameFileIsReadOnceWhateverItIsCalledAndHoweverItsLinesEnd() {
        long one = check("71.00");
        LocalDate day = TestBank.nextDay();
        String text = TestBank.statementText(day, day, TestBank.closing(), Moved.paid(day, one, "71.00"));
        TestBank.read(text, TestBank.statements(), "");

        assertThatThrownBy(() -> TestBank.read(text, TestBank.statements(), ""))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("read this file already");
        assertThatThrownBy(() -> TestBank.read(text.replace("\r\n", "\n"), TestBank.statements(), ""))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("movement by movement");
        assertThat(stateOf(one)).isEqualTo("CLEARED");
    }

    @Test
    void aStatementThatDoesNotFollowSaysSoAndIsReadForAReasonOnly() {
        LocalDate day = TestBank.nextDay();
        TestBank.statement(day, day);
        LocalDate later = day.plusDays(2);
        String text = TestBank.statementText(
                later, later, TestBank.closing().plus(TestBank.usd("40.00")), new Moved(later, "", "2.00", "INTEREST"));

        assertThatThrownBy(() -> TestBank.read(text, TestBank.statements(), ""))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("does not follow the last one");
        TestBank.read(text, TestBank.statements(), "the bank lost the one between");
        assertThat(TestBank.reconciled(later).sum(leveltally.core.clearing.Reconciliation.Kind.GAP))
                .isEqualTo(TestBank.usd("-40.00"));

        // the one between turns up, and takes its place
        LocalDate between = day.plusDays(1);
        TestBank.read(
                TestBank.statementText(
                        between,
                        between,
                        TestBank.closing().minus(TestBank.usd("42.00")),
                        new Moved(between, "", "40.00", "DEPOSIT BETWEEN")),
                TestBank.statements(),
                "its number counts on from the newest");
        for (LocalDate each : List.of(day, between, later)) {
            assertThat(TestBank.reconciled(each).sum(leveltally.core.clearing.Reconciliation.Kind.GAP))
                    .isEqualTo(TestBank.usd("0.00"));
        }
    }

    @Test
    void aFileOfAnotherAccountIsRefused() {
        LocalDate day = TestBank.nextDay();
        String own = TestBank.statementText(day, day, TestBank.closing());
        String other = own.replaceFirst("STATEMENT;\\d+", "STATEMENT;55500012399");
        assertThatThrownBy(() -> TestBank.read(other, TestBank.statements(), ""))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("ending in “2399”");
    }

    @Test
    void whatWasTypedIsToldAgainByAListAndGoesWhenItIsTakenBack() {
        long one = check("62.00");
        bean(BankReading.class).byHand(clerk(), account(), String.valueOf(one), "62.00", DAY);
        assertThat(stateOf(one)).isEqualTo("CLEARED");
        assertThat(list(Moved.paid(DAY, one, "62.00")).again()).isEqualTo(1);

        long movement = number(
                "SELECT m.id FROM bank_movement m JOIN bank_report r ON r.id = m.report_id WHERE m.number = ? AND r.kind = 'BY_HAND'",
                one);
        long version = number("SELECT version FROM bank_movement WHERE id = ?", movement);
        bean(TakingBack.class)
                .takeBack(clerk(), account(), new Answering.SeenMovement(movement, version), "the wrong line");
        assertThat(stateOf(one)).isEqualTo("OUTSTANDING");
        // the list told it by itself, too
        assertThat(exception(String.valueOf(one)).kind()).isEqualTo(ExceptionKind.AGREES);
        assertThat(bean(BankReading.class).lookAgain(clerk(), account()).cleared())
                .isPositive();
        assertThat(stateOf(one)).isEqualTo("CLEARED");
    }

    /** A clerk's word alone moves no cash. */
    @Test
    void whatWasOnlyTypedIsNotEnteredInTheLedger() {
        bean(BankReading.class).byHand(clerk(), account(), "7654321", "62.00", DAY);
        BankExceptions.ExceptionView typed = exception("7654321");
        assertThatThrownBy(() -> TestBank.answer(typed, Answer.ENTER, TestBank.expense(), "", List.of()))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("was typed here");
        // typed by mistake, it is gone once it is taken back
        bean(TakingBack.class)
                .takeBack(
                        clerk(),
                        account(),
                        new Answering.SeenMovement(typed.id(), typed.version()),
                        "the number of another company");
        assertThat(TestBank.open().shown()).noneMatch(one -> one.number().equals("7654321"));
    }

    @Test
    void theBankReadTheNumberWrong() {
        long one = check("93.00");
        list(Moved.paid(DAY, 700_001, "93.00"));
        TestBank.answer(exception("700001"), Answer.ANOTHER_CHECK, null, String.valueOf(one), List.of());
        assertThat(stateOf(one)).isEqualTo("CLEARED");
    }

    /** Ten thousand at once, answered together. */
    @Test
    void tenThousandThatNobodyKnowsAreAnsweredTogether() {
        Moved[] many = new Moved[10_000];
        for (int i = 0; i < many.length; i++) {
            many[i] = Moved.paid(DAY, 8_000_000 + i, "1.00");
        }
        BankReading.BankRead read = list(many);
        assertThat(read.stay()).isEqualTo(10_000);

        List<Answering.SeenMovement> all = App.jdbc()
                .sql("SELECT id AS movement, version FROM bank_movement WHERE report_id = ?")
                .param(read.reports().get(0))
                .query(Answering.SeenMovement.class)
                .list();
        Answering.Answered answered = bean(Answering.class)
                .answer(
                        clerk(),
                        new Answering.Given(
                                account(),
                                all,
                                Answer.BANKS_ERROR,
                                "a file of another company",
                                null,
                                null,
                                "",
                                "",
                                List.of()));
        assertThat(answered.answered()).isEqualTo(10_000);
    }

    @Test
    void ofManyWhoReadOneFileOrAnswerOneMovementOneIsFirst() throws Exception {
        long one = check("44.00");
        LocalDate day = TestBank.nextDay();
        String text = TestBank.statementText(
                day, day, TestBank.closing(), Moved.paid(day, one, "44.00"), new Moved(day, "", "-3.00", "FEE " + day));
        List<Callable<Object>> reading = new ArrayList<>();
        for (int i = 0; i < 6; i++) {
            reading.add(() -> TestBank.read(text, TestBank.statements(), ""));
        }
        assertThat(refused(reading)).isEqualTo(5);

        BankExceptions.ExceptionView fee = TestBank.exceptionOf("FEE " + day);
        List<Callable<Object>> answering = new ArrayList<>();
        for (int i = 0; i < 6; i++) {
            answering.add(() -> TestBank.answer(fee, Answer.BANKS_ERROR));
        }
        assertThat(refused(answering)).isEqualTo(5);
        assertThat(number("SELECT COUNT(*) FROM bank_match WHERE movement_id = ?", fee.id()))
                .isEqualTo(1);
    }

    private static int refused(List<Callable<Object>> deeds) throws InterruptedException {
        ExecutorService threads = Executors.newFixedThreadPool(deeds.size());
        try {
            int refused = 0;
            for (Future<Object> one : threads.invokeAll(deeds)) {
                try {
                    one.get();
                } catch (java.util.concurrent.ExecutionException failed) {
                    assertThat(failed.getCause()).isInstanceOf(Refusal.class);
                    refused++;
                }
            }
            return refused;
        } finally {
            threads.shutdown();
        }
    }
}
