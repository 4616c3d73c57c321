package leveltally.server.clearing;

import jakarta.persistence.EntityManager;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.clearing.Answer;
import leveltally.core.clearing.Clearing;
import leveltally.core.clearing.Movement;
import leveltally.core.clearing.Presented;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.payments.Payments;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Answers what did not clear by itself, one movement or many alike; whole or not at all. */
@Service
public class Answering {
    private static final int LONGEST_WHY = 300;
    private static final int MOST = 20_000;

    private final BankAccounts accounts;
    private final MovementRows rows;
    private final Clearings clearings;
    private final BankEntries bankEntries;
    private final Decisions decisions;
    private final Matching matching;
    private final Payments payments;
    private final AuditTrail audit;
    private final EntityManager entities;

    Answering(
            BankAccounts accounts,
            MovementRows rows,
            Clearings clearings,
            BankEntries bankEntries,
            Decisions decisions,
            Matching matching,
            Payments payments,
            AuditTrail audit,
            EntityManager entities) {
        this.entities = entities;
        this.bankEntries = bankEntries;
        this.accounts = accounts;
        this.rows = rows;
        this.clearings = clearings;
        this.decisions = decisions;
        this.matching = matching;
        this.payments = payments;
        this.audit = audit;
    }

    /** A movement as whoever answers has seen it. */
    public record SeenMovement(long movement, long version) {}

    /** What the ledger, another report or the bank's debt has, that a movement is. */
    public record MatchedWith(MatchKind kind, long of) {}

    /**
     * An answer.
     *
     * @param against an account of the ledger, where something is entered
     * @param on the day of the entry; null for the bank's
     * @param remember words by which the next like it is proposed; empty for none
     * @param number of the check it is, where the bank read another
     * @param has what the ledger has already
     */
    public record Given(
            BankAccountId account,
            List<SeenMovement> movements,
            Answer answer,
            String why,
            @Nullable AccountId against,
            @Nullable LocalDate on,
            String remember,
            String number,
            List<MatchedWith> has) {}

    /** How many were answered, and how many of them cleared a check. */
    public record Answered(int answered, int cleared) {}

    @Transactional
    public Answered answer(Actor by, Given given) {
        by.mayDo(Deed.RECORD_CLEARING);
        BankAccount account = accounts.lock(given.account());
        String why = given.why().strip();
        mustBeSaid(given, why);
        Map<Long, Long> versions = given.movements().stream()
                .collect(Collectors.toMap(SeenMovement::movement, SeenMovement::version, (a, b) -> a));
        List<MovementRows.Told> told = rows.lock(account.id(), versions.keySet());
        if (told.size() < versions.size()) {
            throw Refusal.notFound("no-movement", "One of these is no movement of " + account.name() + ". Look again.");
        }
        told.forEach(one -> mustBeAsSeen(one, versions.get(one.id())));
        rows.lockPayments(account.id(), Clearings.numbers(told));
        Map<Long, Clearing> looked = clearings.look(account.id(), told);
        Work work = new Work(by, account, given, why);
        for (MovementRows.Told one : told) {
            Clearing.Stands stands = mustTake(one, looked.get(one.id()), given.answer());
            if (stands.kind().isDecided()) {
                decisions.decide(by, account, one, given.answer() != Answer.RETURN);
            }
            work.answer(one, stands);
        }
        int cleared = work.write();
        if (!given.remember().isBlank() && given.against() != null) {
            bankEntries.remember(by, account, given.remember(), given.against());
        }
        audit.record(
                by,
                "answer bank exception",
                "bank account " + account.id().value(),
                Map.of(
                        "answer",
                        given.answer().name(),
                        "movements",
                        told.size() == 1 ? told.get(0).id() : told.size(),
                        "why",
                        why));
        return new Answered(told.size(), cleared);
    }

    private static void mustBeSaid(Given given, String why) {
        if (given.movements().isEmpty() || given.movements().size() > MOST) {
            throw Refusal.invalid("none-chosen", "Choose what to answer, at most " + MOST + " at once.");
        }
        if (given.answer().needsReason() && why.isEmpty()) {
            throw Refusal.invalidField("reason-missing", "why", "Say why, for whoever asks later.");
        }
        if (why.length() > LONGEST_WHY) {
            throw Refusal.invalidField("reason-long", "why", "Say it in at most " + LONGEST_WHY + " characters.");
        }
        if (given.answer().isEntered() && given.against() == null) {
            throw Refusal.invalidField("account-missing", "ledgerAccount", "Choose the account that takes it.");
        }
        boolean single = given.answer() == Answer.MATCH || given.answer() == Answer.ANOTHER_CHECK;
        if (single && given.movements().size() > 1) {
            throw Refusal.invalid("one-at-a-time", "This is answered one by one: each is something else.");
        }
    }

    private static void mustBeAsSeen(MovementRows.Told one, long version) {
        if (one.version() != version || !one.isWhole()) {
            throw Refusal.conflict(
                    "answered-meanwhile",
                    inWords(one) + " was answered by somebody else meanwhile. Look again; nothing was written.");
        }
    }

    private static Clearing.Stands mustTake(MovementRows.Told one, Clearing looked, Answer answer) {
        if (!(looked instanceof Clearing.Stands stands)) {
            throw Refusal.conflict(
                    "agrees-now", inWords(one) + " agrees with its check by now. Clear what agrees, then look again.");
        }
        // nobody moves cash in the ledger by what he typed himself
        if (one.by() == TheBankSays.BY_HAND && answer.isEntered()) {
            throw Refusal.conflict(
                    "typed-only",
                    inWords(one)
                            + " was typed here, so nothing is entered for it. Read the statement or the list that tells"
                            + " of it, then enter it; or take it back.");
        }
        if (!stands.kind().answers().contains(answer)) {
            throw Refusal.conflict(
                    "no-such-answer",
                    inWords(one) + ": " + stands.sentence() + " “" + answer.words()
                            + "” does not answer that; it can be: "
                            + stands.kind().answers().stream()
                                    .map(Answer::words)
                                    .collect(Collectors.joining("; "))
                            + ".");
        }
        return stands;
    }

    private static String inWords(MovementRows.Told one) {
        Movement says = one.says();
        return (says.isCheck() ? "Check " + says.number() : "The movement") + " of " + Dates.inWords(says.day()) + ", "
                + says.amount();
    }

    /** What one answer writes, gathered first and written together. */
    private final class Work {
        private final Actor by;
        private final BankAccount account;
        private final Given given;
        private final String why;
        private final List<MovementRows.Match> matches = new ArrayList<>();
        private final List<Payments.Cleared> cleared = new ArrayList<>();
        private final Set<PaymentId> paid = new HashSet<>();
        private final List<MovementRows.Told> anew = new ArrayList<>();

        Work(Actor by, BankAccount account, Given given, String why) {
            this.by = by;
            this.account = account;
            this.given = given;
            this.why = why;
        }

        void answer(MovementRows.Told one, Clearing.Stands stands) {
            Money whole = one.says().amount();
            switch (given.answer()) {
                case PAY -> clears(one, check(stands), whole);
                case BANKS_ERROR -> {
                    Optional<Presented> wrongAmount = differs(stands);
                    wrongAmount.ifPresent(check -> clears(one, check, paid(check)));
                    Money rest =
                            wrongAmount.map(check -> whole.minus(paid(check))).orElse(whole);
                    match(one, MatchKind.CLAIM, null, rest, one.from());
                }
                case RETURN -> match(one, MatchKind.CLAIM, null, whole, one.from());
                case OURS -> {
                    Presented check = check(stands);
                    clears(one, check, paid(check));
                    enters(one, whole.minus(paid(check)));
                }
                case ENTER -> enters(one, whole);
                case MATCH ->
                    matching.of(account, one, given.has()).forEach(found -> {
                        matches.add(found);
                        if (found.kind() == MatchKind.PAYMENT && found.of() != null) {
                            cleared.add(new Payments.Cleared(
                                    new PaymentId(found.of()), "The payment of " + inWords(one), found.on()));
                        }
                    });
                case TAKE_BACK -> takesBack(one, check(stands));
                case ANOTHER_CHECK -> readAs(one);
            }
        }

        private Optional<Presented> differs(Clearing.Stands stands) {
            return Optional.ofNullable(stands.check())
                    .filter(check -> stands.kind() == leveltally.core.clearing.ExceptionKind.AMOUNT_DIFFERS);
        }

        private static Presented check(Clearing.Stands stands) {
            if (stands.check() == null || stands.check().check() == null) {
                throw new IllegalStateException(stands.kind() + " is about no check");
            }
            return stands.check();
        }

        private static Money paid(Presented presented) {
            return carried(presented).amount().negated();
        }

        private static Presented.Carried carried(Presented presented) {
            Presented.Carried check = presented.check();
            if (check == null) {
                throw new IllegalStateException(presented.name() + " carries nothing");
            }
            return check;
        }

        /** On the bank's day, or the day from which the ledger has it. */
        private void clears(MovementRows.Told one, Presented presented, Money amount) {
            Presented.Carried check = carried(presented);
            LocalDate on = one.from(check.posted().isAfter(check.stateDate()) ? check.posted() : check.stateDate());
            if (on.isAfter(by.today())) {
                throw Refusal.conflict(
                        "not-yet-posted",
                        presented.name() + " is in the ledger from " + Dates.inWords(on)
                                + " on. Answer it then, or ask the bank to give it back.");
            }
            if (!paid.add(check.payment())) {
                throw Refusal.conflict(
                        "one-check-twice",
                        "Two of these are about " + presented.name()
                                + ", which is paid once. Answer one of them; then the" + " other is paid twice.");
            }
            cleared.add(new Payments.Cleared(check.payment(), presented.name(), on));
            match(one, MatchKind.PAYMENT, check.payment().value(), amount, on);
        }

        private void enters(MovementRows.Told one, Money amount) {
            LocalDate on = one.from(given.on() == null ? one.says().day() : given.on());
            AccountId against = given.against();
            if (against != null) {
                long entry = bankEntries
                        .enter(by, account, one.says(), amount, against, given.on())
                        .value();
                match(one, MatchKind.ENTRY, entry, amount, on);
            }
        }

        /** The bank took back what it paid: the check is outstanding again from that day on. */
        private void takesBack(MovementRows.Told one, Presented presented) {
            Presented.Carried check = carried(presented);
            MovementRows.Standing before = rows.standing(check.payment())
                    .filter(found -> found.amount().equals(one.says().amount().negated()))
                    .orElseThrow(() -> Refusal.conflict(
                            "nothing-to-take-back",
                            presented.name() + " is " + check.state().words() + " for "
                                    + check.amount()
                                    + "; the bank gave back "
                                    + one.says().amount()
                                    + ", which is not what it paid. Enter it, or match it with what the bank owes."));
            LocalDate on = one.from(before.on());
            rows.undo(by, List.of(before.match()), on, "the bank took it back");
            payments.move(by, check.payment(), PaymentState.OUTSTANDING, presented.name(), on, "The bank took it back");
            match(one, MatchKind.TURNED, before.movement(), one.says().amount(), on);
            matches.add(new MovementRows.Match(
                    before.movement(),
                    MatchKind.TURNED,
                    one.id(),
                    one.says().amount().negated(),
                    on,
                    Answer.TAKE_BACK,
                    why,
                    null));
        }

        private void readAs(MovementRows.Told one) {
            Movement meant = new Movement(
                    one.says().day(),
                    one.says().amount(),
                    given.number(),
                    one.says().text(),
                    one.says().reference(),
                    one.says().reversal());
            if (meant.digits().isEmpty()) {
                throw Refusal.invalidField("number-missing", "number", "Type the number the check has, such as 41237.");
            }
            rows.readAs(one.id(), meant.digits().getAsLong());
            anew.add(new MovementRows.Told(
                    one.id(),
                    one.version() + 1,
                    one.report(),
                    one.by(),
                    one.readAt(),
                    meant,
                    one.open(),
                    one.freeFrom()));
        }

        private void match(MovementRows.Told one, MatchKind kind, @Nullable Long of, Money amount, LocalDate on) {
            matches.add(new MovementRows.Match(one.id(), kind, of, amount, on, given.answer(), why, null));
        }

        int write() {
            // what was entered stands before what names it
            entities.flush();
            if (!cleared.isEmpty()) {
                payments.clear(by, cleared);
            }
            if (!matches.isEmpty()) {
                rows.match(by, account.id(), matches);
            }
            return cleared.size()
                    + (anew.isEmpty()
                            ? 0
                            : clearings.clear(by, account.id(), anew).cleared());
        }
    }
}
