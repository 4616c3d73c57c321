package leveltally.server.clearing;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.clearing.Answer;
import leveltally.core.clearing.Movement;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.EntryId;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.payments.Payment;
import leveltally.server.payments.Payments;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Takes back what stands for a movement: it is open again from today on, its check outstanding, its entry turned. What was typed
 * by hand is gone then, because no bank told it.
 */
@Service
public class TakingBack {
    private final BankAccounts accounts;
    private final MovementRows rows;
    private final BankEntries entries;
    private final Payments payments;
    private final AuditTrail audit;

    TakingBack(BankAccounts accounts, MovementRows rows, BankEntries entries, Payments payments, AuditTrail audit) {
        this.accounts = accounts;
        this.rows = rows;
        this.entries = entries;
        this.payments = payments;
        this.audit = audit;
    }

    @Transactional
    public void takeBack(Actor by, BankAccountId id, Answering.SeenMovement seen, String reason) {
        by.mayDo(Deed.RECORD_CLEARING);
        String why = reason.strip();
        if (why.isEmpty()) {
            throw Refusal.invalidField("reason-missing", "why", "Say why it is taken back.");
        }
        BankAccount account = accounts.lock(id);
        MovementRows.Told one = rows.lock(id, List.of(seen.movement())).stream()
                .findFirst()
                .orElseThrow(
                        () -> Refusal.notFound("no-movement", "There is no such movement of " + account.name() + "."));
        if (one.version() != seen.version()) {
            throw Refusal.conflict(
                    "changed-meanwhile",
                    "Somebody else changed this movement meanwhile. Look again; nothing was written.");
        }
        List<MovementRows.Stood> stood = rows.stood(one.id());
        boolean typed = one.by() == TheBankSays.BY_HAND && one.isWhole();
        if (stood.isEmpty() && !typed) {
            throw Refusal.conflict(
                    "nothing-stands", "Nothing stands for this movement, so there is nothing to take back.");
        }
        if (stood.stream().anyMatch(match -> match.kind() == MatchKind.TURNED)) {
            throw Refusal.conflict(
                    "turned", "The bank took this back itself, and both of its movements say so. That stands.");
        }
        if (stood.stream().anyMatch(MovementRows.Stood::corrected)) {
            throw Refusal.conflict(
                    "corrected", "The bank gave back what it owed for this. Take that movement's answer back first.");
        }
        LocalDate on = stood.stream()
                .map(MovementRows.Stood::on)
                .filter(day -> day.isAfter(by.today()))
                .max(LocalDate::compareTo)
                .orElse(by.today());
        stood.forEach(match -> undone(by, account, match, on, why));
        if (!stood.isEmpty()) {
            rows.undo(by, stood.stream().map(MovementRows.Stood::match).toList(), on, why);
        }
        if (one.by() == TheBankSays.BY_HAND) {
            vanish(by, account, one, on, why);
        }
        audit.record(
                by,
                "take back clearing",
                "bank account " + id.value(),
                Map.of("movement", one.id(), "number", one.says().number(), "reason", why));
    }

    private void undone(Actor by, BankAccount account, MovementRows.Stood match, LocalDate on, String why) {
        switch (match.kind()) {
            case PAYMENT -> {
                Payment payment = payments.lock(new PaymentId(match.of()));
                if (payment.state() != PaymentState.CLEARED) {
                    throw Refusal.conflict(
                            "payment-went-on",
                            "The payment to " + payment.payee() + " is "
                                    + payment.state().words() + " by now; that its bank paid it stands.");
                }
                payments.move(by, payment.id(), PaymentState.OUTSTANDING, "The payment to " + payment.payee(), on, why);
            }
            case ENTRY -> {
                // what was entered for it is turned; what the ledger had before stays
                if (match.answer() == Answer.ENTER || match.answer() == Answer.OURS) {
                    entries.turn(by, new EntryId(match.of()), on, why);
                }
            }
            case TOLD, TURNED, CLAIM, CORRECTION -> {
                // the movement alone
            }
        }
    }

    /** A typed movement that nobody told any more; a statement that seemed to tell it again is open. */
    private void vanish(Actor by, BankAccount account, MovementRows.Told one, LocalDate on, String why) {
        List<Long> toldAgain = rows.toldAgain(one.id());
        if (!toldAgain.isEmpty()) {
            rows.undo(by, toldAgain, on, why);
        }
        Movement counter =
                new Movement(on, one.says().amount().negated(), one.says().number(), why, "", true);
        long other = rows.add(
                        one.report(), one.by(), account.id(), one.readAt(), rows.after(one.report()), List.of(counter))
                .get(0)
                .id();
        rows.match(
                by,
                account.id(),
                List.of(
                        new MovementRows.Match(
                                one.id(),
                                MatchKind.TURNED,
                                other,
                                one.says().amount(),
                                on,
                                Answer.TAKE_BACK,
                                why,
                                null),
                        new MovementRows.Match(
                                other, MatchKind.TURNED, one.id(), counter.amount(), on, Answer.TAKE_BACK, why, null)));
    }
}
