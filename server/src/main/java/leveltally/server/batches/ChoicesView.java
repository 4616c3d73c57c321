package leveltally.server.batches;

import java.time.LocalDate;
import java.util.List;

/** Where the payment of a claim could go, and which credits could reduce it. */
public record ChoicesView(List<RemitToChoice> addresses, List<CreditChoice> credits) {
    record RemitToChoice(long id, String address) {}

    record CreditChoice(long id, String reference, LocalDate date, String open, boolean used) {}
}
