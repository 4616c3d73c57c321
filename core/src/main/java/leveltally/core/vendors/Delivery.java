package leveltally.core.vendors;

/** How a check reaches its payee, in the order in which they are sorted after printing. */
public enum Delivery {
    MAIL("by mail"),
    HAND_OVER("handed over"),
    COURIER("by courier");

    private final String words;

    Delivery(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
