package leveltally.server.checks;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The life of a number and of the payment it carries, what that paid, and what the bank was told of it. */
public record HistoryView(
        RegisterView.NumberView number, List<StepView> steps, List<PaidView> invoices, List<String> bank) {
    record StepView(Instant at, @Nullable LocalDate date, String who, String state, String why) {}

    record PaidView(long line, String reference, String gross, String discount, String cash) {}
}
