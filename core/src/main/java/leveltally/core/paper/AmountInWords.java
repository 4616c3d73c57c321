package leveltally.core.paper;

import com.ibm.icu.text.RuleBasedNumberFormat;
import com.ibm.icu.util.ULocale;
import leveltally.core.Refusal;
import leveltally.core.money.Money;

/**
 * The amount as a check spells it: “One thousand two hundred twenty-five and 00/100”, then the account's currency word.
 */
public final class AmountInWords {
    /** Reading its rules takes longer than a thousand amounts. */
    private static final RuleBasedNumberFormat SPELLER =
            new RuleBasedNumberFormat(ULocale.US, RuleBasedNumberFormat.SPELLOUT);

    private AmountInWords() {}

    /** @throws Refusal for zero and negative amounts, which never reach paper */
    public static String of(Money amount, String currencyWord) {
        if (!amount.isPositive()) {
            throw Refusal.invalid("amount-not-positive", "No check can be written for " + amount + ".");
        }
        int digits = amount.currency().getDefaultFractionDigits();
        long unit = (long) Math.pow(10, digits);
        String whole = spell(amount.minor() / unit);
        String words = Character.toUpperCase(whole.charAt(0)) + whole.substring(1);
        String fraction = digits == 0 ? "" : String.format(" and %0" + digits + "d/%d", amount.minor() % unit, unit);
        return (words + fraction + " " + currencyWord).strip();
    }

    /** One at a time: a format keeps what it works on. */
    private static synchronized String spell(long whole) {
        return SPELLER.format(whole, "%spellout-cardinal");
    }
}
