package leveltally.server.voiding;

import java.time.LocalDate;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.checks.BankKnows;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.ledger.EntryId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.voiding.UndoPlan;
import leveltally.server.audit.AuditTrail;
import leveltally.server.checks.BankEvents;
import leveltally.server.checks.Check;
import leveltally.server.checks.Checks;
import leveltally.server.invoices.Settlements;
import leveltally.server.ledger.EntryKind;
import leveltally.server.ledger.EntryLinks;
import leveltally.server.ledger.Ledger;
import leveltally.server.ledger.Periods;
import leveltally.server.payments.Payment;
import leveltally.server.payments.Payments;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Voids outstanding checks; the invoices come back open, the number stays. */
@Service
public class Voiding {
    private final Payments payments;
    private final Checks checks;
    private final BankEvents told;
    private final Ledger ledger;
    private final Periods periods;
    private final Settlements settlements;
    private final AuditTrail audit;

    Voiding(
            Payments payments,
            Checks checks,
            BankEvents told,
            Ledger ledger,
            Periods periods,
            Settlements settlements,
            AuditTrail audit) {
        this.payments = payments;
        this.checks = checks;
        this.told = told;
        this.ledger = ledger;
        this.periods = periods;
        this.settlements = settlements;
        this.audit = audit;
    }

    /** What voiding on a day would write; the same plan the deed carries out. */
    @Transactional
    public JournalEntry preview(CheckNumberId id, LocalDate on, LocalDate today) {
        JournalEntry entry = plan(checks.get(id), on, today).entry();
        periods.shareOpen(on);
        return entry;
    }

    /** What the bank would hear of the void. */
    public BankKnows bankKnows(CheckNumberId id) {
        return told.bankKnows(id);
    }

    @Transactional
    public void voidCheck(Actor by, CheckNumberId id, LocalDate on, String reason) {
        by.mayDo(Deed.VOID_CHECK);
        if (reason.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why this check is voided.");
        }
        Check check = checks.lockPayment(id);
        UndoPlan plan = plan(check, on, by.today());
        periods.shareOpen(on);
        Payment payment = check.payment();
        EntryLinks links = EntryLinks.ofVoid(
                payment.batch().value(), payment.id().value(), posted(check).value());
        EntryId entry = ledger.write(by, EntryKind.VOID, plan.entry(), links);
        settlements.undo(plan.mirrored(), on, entry);
        payments.undo(by, payment.id(), plan.becomes(), check.name(), entry, on, reason.strip());
        told.tellVoid(check, on);
        audit.record(
                by,
                "void check",
                "check " + check.number(),
                Map.of(
                        "date",
                        on.toString(),
                        "reason",
                        reason.strip(),
                        "amount",
                        payment.amount().plain()));
    }

    private UndoPlan plan(Check check, LocalDate on, LocalDate today) {
        check.state().mustCarry(check.number());
        Payment payment = check.payment();
        UndoPlan.Posted found = new UndoPlan.Posted(
                check.name(),
                payment.state(),
                ledger.entry(posted(check)),
                settlements.settledBy(payment.id().value()));
        return UndoPlan.voiding(found, on, today);
    }

    private static EntryId posted(Check check) {
        EntryId entry = check.payment().postedEntry();
        if (entry == null) {
            throw Refusal.conflict(
                    "not-posted", "Check " + check.number() + " is not posted, so there is nothing to void.");
        }
        return entry;
    }
}
