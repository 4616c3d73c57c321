package leveltally.core.ledger;

import java.util.Arrays;
import java.util.Optional;

/** What kind of account of the ledger it is; kept by name, so that none is ever renamed. */
public enum AccountKind {
    CASH("cash"),
    ASSET("other asset"),
    PAYABLES("payables"),
    LIABILITY("other liability"),
    EQUITY("equity"),
    INCOME("income"),
    EXPENSE("expense");

    private final String words;

    AccountKind(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** The kind as somebody wrote it, by its name or its words in any case; empty for anything else. */
    public static Optional<AccountKind> written(String text) {
        String plain = text.strip();
        return Arrays.stream(values())
                .filter(kind -> kind.name().equalsIgnoreCase(plain) || kind.words.equalsIgnoreCase(plain))
                .findFirst();
    }
}
