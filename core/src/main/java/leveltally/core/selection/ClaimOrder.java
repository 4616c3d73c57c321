package leveltally.core.selection;

import java.util.Comparator;

/** The order of the claims of a batch; it decides the numbers. Equals go by vendor number, then remit-to. */
public enum ClaimOrder {
    PAYEE("payee name", Comparator.comparing(claim -> claim.payee().name(), String.CASE_INSENSITIVE_ORDER)),
    VENDOR_NUMBER("vendor number", Comparator.comparing(claim -> claim.payee().number())),
    AMOUNT(
            "amount, largest first",
            Comparator.comparing(Selection.ClaimDraft::amount).reversed()),
    POSTAL_CODE("postal code", Comparator.comparing(claim -> claim.payee().postalCode()));

    private final String words;
    private final Comparator<Selection.ClaimDraft> comparator;

    ClaimOrder(String words, Comparator<Selection.ClaimDraft> comparator) {
        this.words = words;
        this.comparator = comparator
                .thenComparing(claim -> claim.payee().number())
                .thenComparing(claim -> claim.payee().remitTo())
                .thenComparing(
                        claim -> claim.rows().get(0).candidate().invoice().id().value());
    }

    public String words() {
        return words;
    }

    Comparator<Selection.ClaimDraft> comparator() {
        return comparator;
    }
}
