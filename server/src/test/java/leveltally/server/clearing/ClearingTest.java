package leveltally.server.clearing;

import static leveltally.server.App.bean;
import static leveltally.server.clearing.TestBank.account;
import static leveltally.server.clearing.TestBank.answer;
import static leveltally.server.clearing.TestBank.check;
import static leveltally.server.clearing.TestBank.clerk;
import static leveltally.server.clearing.TestBank.exception;
import static leveltally.server.clearing.TestBank.exceptionOf;
import static leveltally.server.clearing.TestBank.kind;
import static leveltally.server.clearing.TestBank.list;
import static leveltally.server.clearing.TestBank.reconciled;
import static leveltally.server.clearing.TestBank.stateOf;
import static leveltally.server.clearing.TestBank.statement;
import static leveltally.server.clearing.TestBank.usd;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.clearing.Answer;
import leveltally.core.clearing.ExceptionKind;
import leveltally.core.clearing.Reconciliation.Kind;
import leveltally.core.money.Money;
import leveltally.server.App;
import leveltally.server.clearing.TestBank.Moved;
import leveltally.server.proof.Proof;
import leveltally.server.voiding.Stops;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** What the bank paid, against the checks as they stand. */
class ClearingTest {
    private static final LocalDate DAY = LocalDate.of(2026, 11, 18);

    @AfterEach
    void theProofIsClean() {
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law -> assertThat(law.findings()).isEmpty());
    }

    private static CheckNumberId id(long check) {
        return new CheckNumberId(
                App.number("SELECT id FROM check_number WHERE number = ? AND series_id = ?", check, App.series()));
    }

    @Test
    void numberAndAmountClearAndTheRestStays() {
        long good = check("125.00");
        long other = check("80.00");

        BankReading.BankRead read = list(
                Moved.paid(DAY, good, "125.00"), Moved.paid(DAY, other, "81.00"), Moved.paid(DAY, 999_999, "5.00"));

        assertThat(read.cleared()).isEqualTo(1);
        assertThat(read.stay()).isEqualTo(2);
        assertThat(stateOf(good)).isEqualTo("CLEARED");
        assertThat(kind(other)).isEqualTo(ExceptionKind.AMOUNT_DIFFERS);
        assertThat(exception("999999").kind()).isEqualTo(ExceptionKind.NUMBER_UNKNOWN);
    }

    @Test
    void everyReasonToAskHasItsName() {
        long voided = check("10.01");
        App.voidCheck(TestBank.on(App.ines(), App.CHECK_DATE), id(voided), App.CHECK_DATE, "lost");
        long stopped = check("10.02");
        bean(Stops.class)
                .stop(TestBank.on(App.ines(), App.CHECK_DATE), List.of(App.payment(id(stopped))), "lost in the mail");
        long twice = check("10.03");
        list(Moved.paid(DAY, twice, "10.03"));
        long early = check("10.04");
        var unposted = App.printed(App.invoice("Gannet Rope Walk", "10.05"));
        long printed = App.number(
                "SELECT n.number FROM check_number n JOIN payment p ON p.id = n.live_payment_id WHERE p.batch_id = ?",
                unposted.value());

        list(
                Moved.paid(DAY, voided, "10.01"),
                Moved.paid(DAY, stopped, "10.02"),
                Moved.paid(DAY.plusDays(1), twice, "10.03"),
                Moved.paid(App.TODAY.minusDays(3), early, "10.04"),
                Moved.paid(DAY, printed, "10.05"),
                new Moved(DAY, "ZZ" + early, "-10.04", ""));

        assertThat(kind(voided)).isEqualTo(ExceptionKind.VOIDED);
        assertThat(kind(stopped)).isEqualTo(ExceptionKind.STOPPED);
        assertThat(kind(twice)).isEqualTo(ExceptionKind.PAID_TWICE);
        assertThat(kind(early)).isEqualTo(ExceptionKind.EARLY);
        assertThat(kind(printed)).isEqualTo(ExceptionKind.NOT_POSTED);
        assertThat(exception("ZZ" + early).kind()).isEqualTo(ExceptionKind.NUMBER_UNKNOWN);

        // posted since, it clears by itself when somebody looks again
        bean(leveltally.server.posting.Posting.class).post(App.ines(), unposted);
        assertThat(kind(printed)).isEqualTo(ExceptionKind.AGREES);
        assertThat(bean(BankReading.class).lookAgain(clerk(), account()).cleared())
                .isPositive();
        assertThat(stateOf(printed)).isEqualTo("CLEARED");
        answer(exception(String.valueOf(early)), Answer.PAY);
        assertThat(stateOf(early)).isEqualTo("CLEARED");
        assertThatThrownBy(() -> answer(exception(String.valueOf(stopped)), Answer.PAY))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("was stopped");
    }

    @Test
    void aStatementTellsAgainWhatTheListToldAndEveryDayIsExplained() {
        LocalDate from = TestBank.nextDay();
        // what other tests left the bank owing
        Money owing = reconciled(from.minusDays(1)).sum(Kind.OWED);
        long one = check("300.00");
        long two = check("400.00");
        long three = check("55.00");
        list(Moved.paid(from, one, "300.00"), Moved.paid(from, two, "410.00"));

        BankReading.BankRead read = statement(
                from,
                from.plusDays(2),
                Moved.paid(from, one, "300.00"),
                Moved.paid(from, two, "410.00"),
                Moved.paid(from.plusDays(1), three, "55.00"),
                new Moved(from.plusDays(1), "", "-12.50", "ACCOUNT FEE NOVEMBER"),
                new Moved(from.plusDays(2), "", "1000.00", "TICKET HALL"));

        assertThat(read.again()).isEqualTo(2);
        assertThat(read.cleared()).isEqualTo(1);
        for (int day = -1; day < 3; day++) {
            reconciled(from.plusDays(day));
        }
        answer(exception(String.valueOf(two)), Answer.BANKS_ERROR);
        assertThat(stateOf(two)).isEqualTo("CLEARED");
        answer(exceptionOf("ACCOUNT FEE NOVEMBER"), Answer.ENTER, TestBank.expense(), "", List.of());
        assertThat(reconciled(from.plusDays(2)).sum(Kind.OWED)).isEqualTo(owing.plus(usd("10.00")));

        // the bank gives back what it owed
        statement(from.plusDays(3), from.plusDays(4), new Moved(from.plusDays(3), "", "10.00", "ENCODING CORRECTED"));
        BankExceptions.ExceptionView given = exceptionOf("ENCODING CORRECTED");
        var owed = bean(BankExceptions.class).candidates(clerk(), account(), given.id()).stream()
                .filter(claim -> claim.same() && claim.text().contains(String.valueOf(two)))
                .findFirst()
                .orElseThrow();
        assertThat(owed.kind()).isEqualTo(MatchKind.CORRECTION);
        answer(given, Answer.MATCH, null, "", List.of(new Answering.MatchedWith(owed.kind(), owed.of())));
        assertThat(reconciled(from.plusDays(2)).sum(Kind.OWED)).isEqualTo(owing.plus(usd("10.00")));
        assertThat(reconciled(from.plusDays(4)).sum(Kind.OWED)).isEqualTo(owing);
    }

    /** Cash available is what the statement leaves of the ledger's cash, whoever answers it and when. */
    @Test
    void whatAStatementSaysAndTheLedgerDoesNotHaveIsCash() {
        LocalDate day = TestBank.nextDay();
        long one = check("500.00");
        list(Moved.paid(day, one, "520.00"));
        Money before = cash(day);
        statement(
                day,
                day,
                Moved.paid(day, one, "520.00"),
                new Moved(day, "", "75.00", "DEPOSIT OF " + day),
                new Moved(day, "", "-5.00", "FEE OF " + day));
        // of the check the ledger has all but what the bank paid too much, once that is said
        assertThat(cash(day))
                .isEqualTo(before.plus(usd("75.00")).minus(usd("5.00")).minus(usd("520.00")));
        answer(exception(String.valueOf(one)), Answer.BANKS_ERROR);
        assertThat(cash(day))
                .isEqualTo(before.plus(usd("75.00")).minus(usd("5.00")).minus(usd("20.00")));
        assertThat(exceptionOf("DEPOSIT OF " + day).answers().get(0).then()).contains("rises by 75.00");
    }

    private static Money cash(LocalDate day) {
        return bean(leveltally.server.selection.Cash.class)
                .available(bean(leveltally.server.ledger.BankAccounts.class).get(account()), day, 0)
                .available();
    }

    /** The strip counts what the bank paid once it paid anything, and stays level while it has not paid all. */
    @Test
    void whatTheBankPaidIsASixthTally() {
        var batch = App.printed(
                App.invoice("Gannet Rope Walk", "61.00"), App.invoice("Tern & Daughters Diesel Works", "39.00"));
        bean(leveltally.server.posting.Posting.class).post(App.ines(), batch);
        long first = App.number(
                "SELECT MIN(n.number) FROM check_number n JOIN payment p ON p.id = n.live_payment_id WHERE p.batch_id = ?",
                batch.value());
        int before =
                bean(leveltally.server.proof.Levels.class).of(batch).tallies().size();
        String amount = Money.ofMinor(
                        App.number(
                                "SELECT p.amount_minor FROM check_number n JOIN payment p ON p.id = n.live_payment_id WHERE n.number = ?"
                                        + " AND p.batch_id = ?",
                                first,
                                batch.value()),
                        "USD")
                .plain();
        list(Moved.paid(DAY, first, amount));

        var strip = bean(leveltally.server.proof.Levels.class).of(batch);
        assertThat(strip.tallies()).hasSize(before + 1);
        var paid = strip.tallies().get(before);
        assertThat(paid.step()).isEqualTo(leveltally.core.proof.LevelStrip.Step.PAID_BY_THE_BANK);
        assertThat(paid.amount()).isEqualTo(usd(amount));
        assertThat(strip.isLevel()).isTrue();
    }

    /** What the bank asks about is returned before its hour only, and it is kept who decided. */
    @Test
    void afterTheBanksHourNothingIsReturned() {
        var setup = bean(leveltally.server.ledger.BankAccountSetup.class);
        var administrator = App.actor("joss", leveltally.core.people.Role.ADMINISTRATOR);
        assertThatThrownBy(() -> setup.decideBefore(administrator, account(), "2 pm"))
                .hasMessageContaining("14:00");
        setup.decideBefore(administrator, account(), "14:00");
        try {
            list(Moved.paid(DAY, 800_001, "9.00"), Moved.paid(DAY, 800_002, "9.00"));
            BankExceptions.ExceptionView one = exception("800001");
            assertThat(one.decideBy()).isNotNull().isAfter(java.time.Instant.now());
            var who = clerk();
            var late = new leveltally.core.people.Actor(
                    who.person(),
                    who.name(),
                    who.roles(),
                    who.today(),
                    one.decideBy().plusSeconds(1),
                    "test");
            assertThatThrownBy(() -> bean(Answering.class).answer(late, returned(one)))
                    .hasMessageContaining("hour to return it passed");
            bean(Answering.class).answer(who, returned(one));
            assertThat(App.number(
                            "SELECT COUNT(*) FROM bank_decision WHERE movement_id = ? AND NOT pays AND decided_by = ?",
                            one.id(),
                            who.person().value()))
                    .isOne();
            // the bank's error can be said whenever it is found
            BankExceptions.ExceptionView other = exception("800002");
            bean(Answering.class)
                    .answer(
                            late,
                            new Answering.Given(
                                    account(),
                                    List.of(new Answering.SeenMovement(other.id(), other.version())),
                                    Answer.BANKS_ERROR,
                                    "no check of ours",
                                    null,
                                    null,
                                    "",
                                    "",
                                    List.of()));
        } finally {
            setup.decideBefore(administrator, account(), "");
        }
    }

    private static Answering.Given returned(BankExceptions.ExceptionView one) {
        return new Answering.Given(
                account(),
                List.of(new Answering.SeenMovement(one.id(), one.version())),
                Answer.RETURN,
                "no check of ours",
                null,
                null,
                "",
                "",
                List.of());
    }

    /** Two that are answered alike and are about one check pay it once. */
    @Test
    void oneCheckIsNotPaidTwiceByOneAnswer() {
        long one = check("33.00");
        list(Moved.paid(App.TODAY.minusDays(3), one, "33.00"), Moved.paid(App.TODAY.minusDays(2), one, "33.00"));
        List<Answering.SeenMovement> both = TestBank.open().shown().stream()
                .filter(each -> each.number().equals(String.valueOf(one)))
                .map(each -> new Answering.SeenMovement(each.id(), each.version()))
                .toList();
        assertThat(both).hasSize(2);
        assertThatThrownBy(() -> bean(Answering.class)
                        .answer(
                                clerk(),
                                new Answering.Given(account(), both, Answer.PAY, "", null, null, "", "", List.of())))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("which is paid once");
        assertThat(stateOf(one)).isEqualTo("OUTSTANDING");
    }
}
