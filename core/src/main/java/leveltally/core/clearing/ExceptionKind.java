package leveltally.core.clearing;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;

/** Why what the bank paid does not clear by itself, and how it can be answered; the first answer is the one proposed. */
public enum ExceptionKind {
    /** It did not when it was told, and does by now. */
    AGREES("agrees by now"),
    AMOUNT_DIFFERS("amount differs", Answer.BANKS_ERROR, Answer.OURS, Answer.RETURN),
    NUMBER_UNKNOWN(
            "number unknown", Answer.ANOTHER_CHECK, Answer.BANKS_ERROR, Answer.RETURN, Answer.MATCH, Answer.ENTER),
    VOIDED("voided", Answer.RETURN, Answer.BANKS_ERROR, Answer.ENTER),
    /** To let it stand, its stop is lifted first, by two. */
    STOPPED("stopped", Answer.RETURN, Answer.BANKS_ERROR),
    SPOILED("spoiled", Answer.RETURN, Answer.BANKS_ERROR, Answer.ENTER),
    /** The number is one of ours, and no check went out under it. */
    NOT_ISSUED("no check went out", Answer.RETURN, Answer.BANKS_ERROR, Answer.ENTER),
    /** It went out, and the ledger does not have it yet. */
    NOT_POSTED("not posted", Answer.BANKS_ERROR, Answer.RETURN),
    PAID_TWICE("paid twice", Answer.BANKS_ERROR, Answer.RETURN, Answer.ENTER),
    STALE("stale", Answer.PAY, Answer.RETURN, Answer.BANKS_ERROR),
    /** Before the day on which the ledger has it. */
    EARLY("paid early", Answer.PAY, Answer.RETURN, Answer.BANKS_ERROR),
    /** The bank took back what it paid. */
    REVERSED("taken back by the bank", Answer.TAKE_BACK, Answer.MATCH, Answer.ENTER),
    /** The bank gives money back for a check it did not pay rightly. */
    GIVEN_BACK("given back by the bank", Answer.MATCH, Answer.ENTER),
    /** Fees, interest, deposits, transfers: no check at all. */
    NO_CHECK("to enter or match", Answer.ENTER, Answer.MATCH, Answer.BANKS_ERROR);

    private final String words;
    private final List<Answer> answers;

    ExceptionKind(String words, Answer... answers) {
        this.words = words;
        this.answers = List.of(answers);
    }

    public String words() {
        return words;
    }

    /** The answers there are, the proposed one first. */
    public List<Answer> answers() {
        return answers;
    }

    /** What is decided with the bank before its hour: a check it asks about, not what it did by itself. */
    public boolean isDecided() {
        return answers.contains(Answer.RETURN);
    }

    /** Kinds that are about a check of ours. */
    public static Set<ExceptionKind> ofChecks() {
        return EnumSet.complementOf(EnumSet.of(NO_CHECK));
    }
}
