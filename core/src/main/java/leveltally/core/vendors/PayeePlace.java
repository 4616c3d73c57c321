package leveltally.core.vendors;

/**
 * Where payments to a vendor go and by which account, as it is or shall be.
 *
 * @param address its lines, joined
 */
public record PayeePlace(String payee, String address, String postalCode, KnownBank bank) {
    /** What a new address changes. */
    public static final PayeePlace NOWHERE = new PayeePlace("", "", "", KnownBank.NONE);

    /** What is another than before, in words; empty when nothing is. */
    public String changeFrom(PayeePlace before) {
        if (before.payee.isEmpty()) {
            return "new address";
        }
        boolean moved =
                !payee.equals(before.payee) || !address.equals(before.address) || !postalCode.equals(before.postalCode);
        boolean rebanked = !bank.key().equals(before.bank.key());
        return moved && rebanked ? "address and bank details" : moved ? "address" : rebanked ? "bank details" : "";
    }

    /** True when money would go to another account. */
    public boolean isRebankedFrom(PayeePlace before) {
        return !bank.key().isEmpty() && !bank.key().equals(before.bank.key());
    }

    /** With the bank details of another. */
    public PayeePlace withBankOf(PayeePlace other) {
        return new PayeePlace(payee, address, postalCode, other.bank);
    }

    /** For the trail. */
    public String inWords() {
        return payee.isEmpty()
                ? "none"
                : payee + ", " + address.replace("\n", ", ") + (bank.mask().isEmpty() ? "" : ", " + bank.mask());
    }
}
