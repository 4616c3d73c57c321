package leveltally.core.vendors;

/** How a vendor is paid. */
public enum PaymentMethod {
    CHECK("check"),
    CREDIT_TRANSFER("credit transfer");

    private final String words;

    PaymentMethod(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
