package leveltally.server.voiding;

import java.time.LocalDate;
import java.util.Objects;
import leveltally.core.Refusal;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.voiding.Effect;
import leveltally.core.voiding.UndoPlan;
import leveltally.server.checks.Check;
import leveltally.server.outside.CardStatements;
import leveltally.server.payments.Payment;
import org.jspecify.annotations.Nullable;

/**
 * A payment with what undoing it would do, or with why it cannot be undone so.
 *
 * @param asked what was asked of it
 * @param name what people call it
 * @param check the paper that carries it; null where none does
 * @param carried what carried it, where that was no check; null where nothing says so
 * @param statement the card issuer's statement it stands on; null for none
 * @param entry the one that posted it; null where none did
 * @param refused set where there is no plan
 */
record Looked(
        Payment payment,
        Wanted.One asked,
        String name,
        @Nullable Check check,
        @Nullable PaymentMethod carried,
        CardStatements.@Nullable On statement,
        LocalDate on,
        @Nullable JournalEntry entry,
        @Nullable UndoPlan plan,
        @Nullable Effect effect,
        @Nullable Refusal refused) {
    /** Whether cash that left by the bank comes back by the bank, under a reference of its own. */
    boolean comesBack() {
        return check == null && carried != null && carried.movesCash();
    }

    /** The plan of one that is not refused. */
    UndoPlan planned() {
        return Objects.requireNonNull(plan);
    }

    /** What the trail calls it. */
    String subject() {
        return check == null ? "payment " + payment.id().value() : "check " + check.number();
    }
}
