package leveltally.server.clearing;

import static leveltally.server.App.bean;
import static leveltally.server.clearing.TestBank.account;
import static leveltally.server.clearing.TestBank.check;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import leveltally.core.bankfiles.StandardBankLayouts;
import leveltally.core.clearing.Answer;
import leveltally.core.exchange.ChannelKind;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Role;
import leveltally.practicebank.Mischief;
import leveltally.practicebank.PracticeBank;
import leveltally.server.App;
import leveltally.server.bankfiles.BankAnswers;
import leveltally.server.bankfiles.BankFiles;
import leveltally.server.exchange.Channels;
import leveltally.server.exchange.Courier;
import leveltally.server.exchange.Exchange;
import leveltally.server.exchange.Incoming;
import leveltally.server.exchange.Outgoing;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.BankHolidays;
import leveltally.server.practice.PracticeDays;
import leveltally.server.proof.Proof;
import leveltally.server.voiding.Undoing;
import leveltally.server.voiding.Wanted;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;

/**
 * Days at the bank to practise on with everything it can do wrong: it hears of the company by files alone, reads them by itself,
 * and after each day bank and ledger differ by nothing that is not named.
 */
class PracticeWeekTest {
    private static final int MOST_DAYS = 25;
    /** All but what it does with payments by file, which {@link PracticePaymentsTest} tries. */
    private static final Set<Mischief> TRIED =
            EnumSet.complementOf(EnumSet.of(Mischief.SEND_BACK, Mischief.CORRECT_ACCOUNT));

    private final PracticeDays days = bean(PracticeDays.class);
    private final Incoming incoming = bean(Incoming.class);
    private final Set<Mischief> seen = EnumSet.noneOf(Mischief.class);
    private final List<Long> posted = new ArrayList<>();
    private LocalDate day = firstDay();

    @AfterAll
    static void asItWas() {
        App.asRoot("DELETE FROM practice_day");
        App.asRoot("DELETE FROM bank_sending");
    }

    private static LocalDate firstDay() {
        return bean(BankHolidays.class).of(account()).onOrAfter(TestBank.nextDay());
    }

    private Actor clerk() {
        return TestBank.on(App.tomas(), day);
    }

    @Test
    void whateverTheBankDoesIsAnsweredAndReconciled() {
        tellEverything();
        assertThat(days.look(clerk())).singleElement();
        while (seen.size() < TRIED.size() || !isQuiet()) {
            assertThat(posted.size()).as("days, with %s seen", seen).isLessThan(MOST_DAYS * 3);
            for (Mischief one : TRIED) {
                if (!seen.contains(one) && !isOrdered(one)) {
                    days.order(clerk(), account(), one, true);
                    break;
                }
            }
            for (int i = 0; i < 3; i++) {
                posted.add(check((20 + posted.size()) + ".4" + i));
            }
            if (posted.size() % 2 == 0) {
                voidOne();
            }
            aDay();
        }
        assertThat(seen).containsAll(TRIED);
        assertThat(bean(Proof.class).run().laws())
                .allSatisfy(law ->
                        assertThat(law.findings()).as(String.valueOf(law)).isEmpty());
    }

    /** Two people let the same day pass: the bank has it once. */
    @Test
    void aDayPassesOnce() {
        Actor early = clerk();
        days.letPass(early);
        assertThatThrownBy(() -> days.letPass(early)).hasMessageContaining("let this day pass already");
        incoming.readAll(clerk(), account());
    }

    /** No file tells the bank of these checks, it pays what people bring; and writes as it was told to. */
    @Test
    void anAccountWithoutPositivePayIsPaidFromAllTheSame() {
        BankAccountId works = new BankAccountId(App.number("SELECT id FROM bank_account WHERE name = 'Harbour Works'"));
        practising(works, true, 0);
        days.write(clerk(), works, PracticeBank.Writes.LISTS);
        String out = "SELECT COUNT(*) FROM payment WHERE bank_account_id = ? AND state = 'OUTSTANDING'";
        long before = App.number(out, works.value());
        List<Incoming.IncomingRead> read = new ArrayList<>();
        for (int i = 0; i < 5; i++) {
            day = days.letPass(clerk()).today();
            read.addAll(incoming.readAll(clerk(), works));
            incoming.readAll(clerk(), account());
        }
        practising(works, false, 1);
        assertThat(before).isPositive();
        assertThat(App.number(out, works.value())).isLessThan(before);
        assertThat(read).allSatisfy(one -> assertThat(one.read()).as(one.said()).isTrue());
        assertThat(read)
                .extracting(Incoming.IncomingRead::name)
                .anyMatch(name -> name.startsWith("statement-") && name.endsWith(".csv"));
    }

    /** @param version of the channel there is; 0 for none */
    private void practising(BankAccountId id, boolean inUse, long version) {
        String folder = PracticeBank.folder(bean(BankAccounts.class).get(id).accountNumber());
        bean(Channels.class)
                .set(
                        App.actor("joss", Role.ADMINISTRATOR),
                        id,
                        new Channels.WantedChannel(
                                ChannelKind.PRACTICE,
                                "",
                                0,
                                "",
                                null,
                                "",
                                folder + "/in",
                                folder + "/out",
                                "",
                                List.of(
                                        new Channels.RuleView(
                                                "paid-*",
                                                StandardBankLayouts.paidList().name()),
                                        new Channels.RuleView(
                                                "statement-*",
                                                StandardBankLayouts.statementList()
                                                        .name())),
                                inUse,
                                version));
    }

    private boolean isQuiet() {
        return nothingHeld()
                && days.look(clerk()).get(0).mischief().stream().noneMatch(PracticeDays.MischiefView::ordered)
                && untold() == 0;
    }

    private boolean nothingHeld() {
        PracticeDays.PracticeStanding standing = days.look(clerk()).get(0).atTheBank();
        return standing == null || standing.held().isEmpty();
    }

    private boolean isOrdered(Mischief what) {
        return days.look(clerk()).get(0).mischief().stream().anyMatch(one -> one.name() == what && one.ordered());
    }

    private static long untold() {
        return App.number(
                "SELECT COUNT(*) FROM bank_event e LEFT JOIN bank_file f ON f.id = e.file_id WHERE e.bank_account_id = ?"
                        + " AND e.never_reported IS NULL AND COALESCE(f.state, '') <> 'ACCEPTED'",
                account().value());
    }

    /** What other tests left is with the bank already. */
    private void tellEverything() {
        for (long file : App.jdbc()
                .sql("SELECT id FROM bank_file WHERE bank_account_id = ? AND state = 'MADE'")
                .param(account().value())
                .query(Long.class)
                .list()) {
            bean(BankAnswers.class).accepted(clerk(), file, "");
        }
    }

    private void voidOne() {
        App.jdbc()
                .sql("SELECT n.live_payment_id FROM check_number n JOIN payment p ON p.id = n.live_payment_id"
                        + " JOIN bank_event e ON e.check_number_id = n.id JOIN bank_file f ON f.id = e.file_id"
                        + " WHERE p.bank_account_id = ? AND p.state = 'OUTSTANDING' AND f.state = 'ACCEPTED'"
                        + " AND n.series_id = ? ORDER BY n.number DESC LIMIT 1")
                .params(account().value(), App.series())
                .query(Long.class)
                .optional()
                .ifPresent(payment -> bean(Undoing.class)
                        .undo(
                                clerk(),
                                Wanted.broughtBack(new leveltally.core.payments.PaymentId(payment), day),
                                "lost"));
    }

    /** Tells the bank what it has not heard, lets the day pass, reads what came, answers it. */
    private void aDay() {
        Set<Mischief> before = ordered();
        if (App.number(
                        "SELECT COUNT(*) FROM bank_event WHERE bank_account_id = ? AND file_id IS NULL"
                                + " AND never_reported IS NULL AND kind = 'ISSUE'",
                        account().value())
                > 0) {
            bean(Outgoing.class).send(clerk(), bean(BankFiles.class).make(clerk(), account()));
        }
        if (bean(Exchange.class).of(clerk(), account()).untold() > 0) {
            bean(Exchange.class).tellDecisions(clerk(), account());
        }
        PracticeDays.PracticeDay passed = days.letPass(clerk());
        before.removeAll(ordered());
        seen.addAll(before);
        List<Incoming.IncomingRead> read = incoming.readAll(clerk(), account());
        read.stream()
                .filter(one -> !one.read())
                .forEach(one -> assertThat(before)
                        .as("%s on %s: %s, %s", one.name(), day, one.said(), passed.did())
                        .containsAnyOf(Mischief.SEND_TWICE, Mischief.CUT_FILE));
        if (before.contains(Mischief.SKIP_STATEMENT)) {
            assertThat(days.ask(clerk(), account())).isEqualTo(1);
            incoming.readAll(clerk(), account());
        }
        boolean whole = incoming.of(clerk(), account(), null).stream()
                .noneMatch(one -> one.state().equals("WAITING"));
        if (whole && nothingHeld()) {
            answerAll();
            TestBank.reconciled(day);
        }
        // decisions are not answered by a bank: they are heard when it acts on them
        day = passed.today();
    }

    private Set<Mischief> ordered() {
        Set<Mischief> ordered = EnumSet.noneOf(Mischief.class);
        days.look(clerk()).get(0).mischief().stream()
                .filter(PracticeDays.MischiefView::ordered)
                .forEach(one -> ordered.add(one.name()));
        return ordered;
    }

    private void answerAll() {
        for (BankExceptions.ExceptionView one :
                bean(BankExceptions.class).of(clerk(), account(), null).shown()) {
            List<Answering.MatchedWith> has =
                    bean(BankExceptions.class).candidates(clerk(), account(), one.id()).stream()
                            .filter(BankExceptions.CandidateView::same)
                            .limit(1)
                            .map(same -> new Answering.MatchedWith(same.kind(), same.of()))
                            .toList();
            List<Answer> answers =
                    one.answers().stream().map(answer -> answer.answer()).toList();
            Answer chosen = !has.isEmpty() && answers.contains(Answer.MATCH)
                    ? Answer.MATCH
                    : answers.contains(Answer.RETURN) && one.number().hashCode() % 2 == 0
                            ? Answer.RETURN
                            : answers.stream()
                                    .filter(of -> of == Answer.BANKS_ERROR || of == Answer.TAKE_BACK)
                                    .findFirst()
                                    .orElse(Answer.ENTER);
            bean(Answering.class)
                    .answer(
                            clerk(),
                            new Answering.Given(
                                    account(),
                                    List.of(new Answering.SeenMovement(one.id(), one.version())),
                                    chosen,
                                    "as it is",
                                    chosen == Answer.ENTER ? TestBank.expense() : null,
                                    chosen == Answer.ENTER ? App.TODAY : null,
                                    "",
                                    "",
                                    chosen == Answer.MATCH ? has : List.of()));
        }
    }

    /** Nothing the courier has to do is left behind. */
    @Test
    void nothingIsLeftOnItsWay() {
        assertThat(bean(Courier.class).carry(java.time.Instant.now())).isZero();
    }
}
