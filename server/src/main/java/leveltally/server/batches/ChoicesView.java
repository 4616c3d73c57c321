package leveltally.server.batches;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.LocalDate;
import java.util.List;

/** Where the payment of a claim could go, and which credits could reduce it. */
@Schema(requiredProperties = {"addresses", "credits"})
public record ChoicesView(List<RemitToChoice> addresses, List<CreditChoice> credits) {
    @Schema(requiredProperties = {"id", "address"})
    record RemitToChoice(long id, String address) {}

    @Schema(requiredProperties = {"id", "reference", "date", "open", "used"})
    record CreditChoice(long id, String reference, LocalDate date, String open, boolean used) {}
}
