package leveltally.server.checks;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The life of a number and of the payment it carries, what that paid, and what the bank was told of it.
 *
 * @param chain what it was paid instead of and what was paid instead of it; empty where it is alone
 * @param undoing what a second person is asked about it; null where nobody is
 */
public record HistoryView(
        RegisterView.NumberView number,
        List<StepView> steps,
        List<PaidView> invoices,
        List<String> bank,
        @Nullable StopView stop,
        @Nullable Long undoing,
        List<ChainView> chain) {
    /** A check in a chain of reissues, the first one first; {@code check} is its number's id, absent where no paper carries it. */
    record ChainView(@Nullable Long check, String name, String state, LocalDate checkDate, boolean here) {}

    /** The stop that stands over it; {@code confirmed} and {@code expires} are absent where the bank said nothing of them. */
    record StopView(
            LocalDate asked,
            String why,
            @Nullable LocalDate confirmed,
            String reference,
            @Nullable LocalDate expires,
            String words,
            boolean look) {}

    record StepView(Instant at, @Nullable LocalDate date, String who, String state, String why) {}

    /** @param invoice its entry number; absent for what is paid without one */
    record PaidView(long line, @Nullable Long invoice, String reference, String gross, String discount, String cash) {}
}
