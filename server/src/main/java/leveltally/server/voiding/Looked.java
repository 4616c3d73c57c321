package leveltally.server.voiding;

import java.time.LocalDate;
import leveltally.core.Refusal;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.voiding.Effect;
import leveltally.core.voiding.UndoPlan;
import leveltally.server.checks.Check;
import leveltally.server.payments.Payment;
import org.jspecify.annotations.Nullable;

/**
 * A payment with what undoing it would do, or with why it cannot be undone so.
 *
 * @param name what people call it
 * @param check the paper that carries it; null where none does
 * @param entry the one that posted it; null where none did
 * @param refused set where there is no plan
 */
record Looked(
        Payment payment,
        String name,
        @Nullable Check check,
        LocalDate on,
        @Nullable JournalEntry entry,
        @Nullable UndoPlan plan,
        @Nullable Effect effect,
        @Nullable Refusal refused) {}
