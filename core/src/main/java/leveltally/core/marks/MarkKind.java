package leveltally.core.marks;

/** Why a payment deserves a look; the first deserves it most. */
public enum MarkKind {
    DUPLICATE("possible duplicate"),
    PAID_AHEAD("paid ahead already"),
    CHANGED_PAYEE("address or bank details changed"),
    SENT_BACK("sent back by the bank"),
    FAR_ABOVE("far above the usual"),
    JUST_UNDER("just under a limit"),
    ONE_TIME("one-time payee"),
    FIRST_PAYMENT("first payment");

    private final String words;

    MarkKind(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
