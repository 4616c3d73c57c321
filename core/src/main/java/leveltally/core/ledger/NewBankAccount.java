package leveltally.core.ledger;

import java.util.Currency;
import java.util.regex.Pattern;
import leveltally.core.Refusal;

/**
 * A bank account as it is opened here.
 *
 * @param name what everybody calls it, such as Operations
 * @param accountNumber as the bank writes it, without spaces; sealed where it is kept
 * @param cash the account of the ledger that keeps its cash
 */
public record NewBankAccount(
        String name, String bankName, Currency currency, RoutingNumber routing, String accountNumber, AccountId cash) {
    private static final Pattern NUMBER = Pattern.compile("[0-9]{4,17}");

    /** @throws Refusal naming the field that cannot be so */
    public NewBankAccount {
        name = name(name);
        bankName = bankName(bankName);
        accountNumber = accountNumber.replaceAll("[\\s-]", "");
        if (!NUMBER.matcher(accountNumber).matches()) {
            throw Refusal.invalidField(
                    "account-number",
                    "accountNumber",
                    "An account number has 4 to 17 digits, as on the bank's statement.");
        }
    }

    /** The name as it is kept. */
    public static String name(String typed) {
        return kept(typed, "name", 60, "Give the account a name of at most 60 characters, such as Operations.");
    }

    /** The bank's name as it is kept. */
    public static String bankName(String typed) {
        return kept(typed, "bankName", 80, "Name the bank, in at most 80 characters: it stands on every check.");
    }

    private static String kept(String typed, String field, int most, String sentence) {
        String stripped = typed.strip();
        if (stripped.isEmpty() || stripped.length() > most) {
            throw Refusal.invalidField("bank-" + field, field, sentence);
        }
        return stripped;
    }
}
