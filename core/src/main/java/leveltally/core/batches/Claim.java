package leveltally.core.batches;

import java.util.List;
import leveltally.core.money.Money;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;

/** One payee's payment before it has a number; its amount is Σ of its lines. */
public record Claim(ClaimId id, VendorId vendor, RemitTo remitTo, Money amount, List<ClaimLine> lines) {
    public Claim {
        lines = List.copyOf(lines);
        Money total = Money.sum(lines.stream().map(ClaimLine::cash).toList(), amount.currency());
        if (!total.equals(amount)) {
            throw new IllegalArgumentException(
                    "claim of " + remitTo.payee() + ": amount " + amount + " is not Σ of its lines, " + total);
        }
    }
}
