package leveltally.server.checks;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;

/** The life of a number and of the payment it carries, what that paid, and what the bank was told of it. */
@Schema(requiredProperties = {"number", "steps", "invoices", "bank"})
public record HistoryView(
        RegisterView.NumberView number, List<StepView> steps, List<PaidView> invoices, List<String> bank) {
    @Schema(requiredProperties = {"at", "date", "who", "state", "why"})
    record StepView(Instant at, LocalDate date, String who, String state, String why) {}

    @Schema(requiredProperties = {"line", "reference", "gross", "discount", "cash"})
    record PaidView(long line, String reference, String gross, String discount, String cash) {}
}
