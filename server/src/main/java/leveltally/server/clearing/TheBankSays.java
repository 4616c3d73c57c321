package leveltally.server.clearing;

/** Where a movement was told. */
enum TheBankSays {
    /** A statement, with its balances. */
    STATEMENT("statement"),
    /** A list of the checks it paid. */
    PAID_CHECKS("list of paid checks"),
    /** What somebody typed from the bank's site or paper. */
    BY_HAND("typed");

    private final String words;

    TheBankSays(String words) {
        this.words = words;
    }

    String words() {
        return words;
    }
}
