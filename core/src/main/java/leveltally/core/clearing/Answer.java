package leveltally.core.clearing;

/** What somebody says of a movement that did not clear by itself. */
public enum Answer {
    /** The check clears as it stands; what the bank paid beside it, it owes us. */
    BANKS_ERROR("The bank's error: ask it to correct", true),
    /** The check clears; the difference is entered. */
    OURS("Our error: the check says what the bank paid", true),
    /** The bank is told not to pay it, and gives the money back. */
    RETURN("Return it: the bank gives the money back", true),
    /** It is right as it is. */
    PAY("Pay it: it is right", false),
    /** The bank read the number wrong. */
    ANOTHER_CHECK("It is another check", true),
    /** An entry of the ledger takes it. */
    ENTER("Enter it in the ledger", false),
    /** The ledger has it already. */
    MATCH("The ledger has it already", false),
    /** The check is outstanding again. */
    TAKE_BACK("The check is outstanding again", false);

    private final String words;
    private final boolean needsReason;

    Answer(String words, boolean needsReason) {
        this.words = words;
        this.needsReason = needsReason;
    }

    public String words() {
        return words;
    }

    public boolean needsReason() {
        return needsReason;
    }

    /** Whether an entry is written, and so an account of the ledger chosen. */
    public boolean isEntered() {
        return this == ENTER || this == OURS;
    }
}
