package leveltally.practicebank;

import java.util.EnumSet;
import java.util.Set;

/** What the bank can be told to do wrong once, on the next day on which it can. */
public enum Mischief {
    REFUSE_FILE("refuse the next file"),
    REFUSE_EVENT("refuse one item of the next file"),
    PAY_VOIDED("pay a check that was voided"),
    PAY_ALTERED("pay a check somebody altered"),
    PAY_TWICE("pay a check twice"),
    ENCODE_WRONG("read an amount wrong"),
    SEND_LATE("send what it has to tell a day late"),
    SEND_TWICE("send its list twice, under another name"),
    SKIP_STATEMENT("leave out a statement"),
    CUT_FILE("cut a file off in the middle"),
    SEND_BACK("send a payment by file back"),
    CORRECT_ACCOUNT("correct the account of a payment by file");

    private static final Set<Mischief> WITH_FILES = EnumSet.of(REFUSE_FILE, REFUSE_EVENT);

    private final String words;

    Mischief(String words) {
        this.words = words;
    }

    /** Whether it can be done only where the company tells of its checks. */
    public boolean needsFiles() {
        return WITH_FILES.contains(this);
    }

    public String words() {
        return words;
    }
}
