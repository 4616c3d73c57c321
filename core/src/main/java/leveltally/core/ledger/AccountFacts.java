package leveltally.core.ledger;

import java.util.regex.Pattern;
import leveltally.core.Refusal;

/**
 * What an account of the ledger is.
 *
 * @param code what people and files call it; never changed, entries in other books name it
 */
public record AccountFacts(String code, String name, AccountKind kind) {
    private static final Pattern CODE = Pattern.compile("[0-9A-Za-z][0-9A-Za-z.-]{0,11}");
    private static final int MOST_NAME = 80;

    /** @throws Refusal naming the field that cannot be so */
    public AccountFacts {
        code = code.strip();
        name = name.strip();
        if (!CODE.matcher(code).matches()) {
            throw Refusal.invalidField(
                    "account-code",
                    "code",
                    "A code has 1 to 12 letters, digits, dots or hyphens, such as 5200 or 5200-10.");
        }
        if (name.isEmpty() || name.length() > MOST_NAME) {
            throw Refusal.invalidField(
                    "account-name", "name", "Give the account a name of at most " + MOST_NAME + " characters.");
        }
    }

    /** The same account under another name. */
    public AccountFacts named(String other) {
        return new AccountFacts(code, other, kind);
    }
}
