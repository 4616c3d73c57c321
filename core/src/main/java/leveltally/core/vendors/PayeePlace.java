package leveltally.core.vendors;

/**
 * Where payments to a vendor go and by which account, as it is or shall be.
 *
 * @param address its lines, joined
 * @param bankKey the keyed hash of the bank details, and {@code bankMask} what is shown of them; empty where there are none
 */
public record PayeePlace(String payee, String address, String postalCode, String bankKey, String bankMask) {
    /** What a new address changes. */
    public static final PayeePlace NOWHERE = new PayeePlace("", "", "", "", "");

    /** What is another than before, in words; empty when nothing is. */
    public String changeFrom(PayeePlace before) {
        if (before.payee.isEmpty()) {
            return "new address";
        }
        boolean moved =
                !payee.equals(before.payee) || !address.equals(before.address) || !postalCode.equals(before.postalCode);
        boolean rebanked = !bankKey.equals(before.bankKey);
        return moved && rebanked ? "address and bank details" : moved ? "address" : rebanked ? "bank details" : "";
    }

    /** True when money would go to another account. */
    public boolean isRebankedFrom(PayeePlace before) {
        return !bankKey.isEmpty() && !bankKey.equals(before.bankKey);
    }

    /** With the bank details of another. */
    public PayeePlace withBankOf(PayeePlace other) {
        return new PayeePlace(payee, address, postalCode, other.bankKey, other.bankMask);
    }

    /** For the trail. */
    public String inWords() {
        return payee.isEmpty()
                ? "none"
                : payee + ", " + address.replace("\n", ", ") + (bankMask.isEmpty() ? "" : ", " + bankMask);
    }
}
