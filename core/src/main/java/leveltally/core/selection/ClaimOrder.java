package leveltally.core.selection;

import java.text.Normalizer;
import java.util.Locale;
import java.util.function.Function;
import leveltally.core.money.Money;

/**
 * The order of the claims of a batch; it decides the numbers. Equals go by vendor number, then remit-to, then their first
 * entry.
 */
public enum ClaimOrder {
    PAYEE("payee name", claim -> folded(claim.payee())),
    VENDOR_NUMBER("vendor number", claim -> ""),
    AMOUNT(
            "amount, largest first",
            claim -> padded(Long.MAX_VALUE - claim.amount().minor())),
    POSTAL_CODE("postal code", claim -> folded(claim.postalCode()));

    /**
     * What the order looks at in a claim.
     *
     * @param payee whom the paper names
     * @param firstEntry the lowest entry number it pays
     */
    public record Placed(
            String payee, String vendorNumber, long remitTo, Money amount, String postalCode, long firstEntry) {}

    private final String words;
    private final Function<Placed, String> first;

    ClaimOrder(String words, Function<Placed, String> first) {
        this.words = words;
        this.first = first;
    }

    public String words() {
        return words;
    }

    /** A key that stands before another, compared character by character, exactly when its claim does. */
    public String key(Placed claim) {
        return String.join(
                "\u0001",
                first.apply(claim),
                folded(claim.vendorNumber()),
                padded(claim.remitTo()),
                padded(claim.firstEntry()));
    }

    private static String padded(long number) {
        return String.format(Locale.ROOT, "%019d", number);
    }

    /** Without case and accents, so that Île stands among the I. */
    private static String folded(String text) {
        return Normalizer.normalize(text, Normalizer.Form.NFKD)
                .replaceAll("[\\p{M}\\p{Cntrl}]", "")
                .toLowerCase(Locale.ROOT);
    }
}
