package leveltally.core.batches;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import leveltally.core.invoices.InvoiceId;
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

    /** The claim of the payment it replaces; empty where it replaces none. */
    public Optional<ClaimId> keptOf() {
        return lines.stream()
                .filter(ClaimLine.Kept.class::isInstance)
                .map(line -> ((ClaimLine.Kept) line).of())
                .findFirst();
    }

    /** What these claims take from each open invoice and credit. */
    public static Map<InvoiceId, Money> settling(Collection<Claim> claims) {
        Map<InvoiceId, Money> settling = new HashMap<>();
        claims.stream()
                .flatMap(claim -> claim.lines().stream())
                .forEach(line -> line.item().ifPresent(item -> settling.merge(item, line.gross(), Money::plus)));
        return settling;
    }
}
