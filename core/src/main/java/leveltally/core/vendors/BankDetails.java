package leveltally.core.vendors;

import java.util.Locale;
import java.util.regex.Pattern;
import leveltally.core.Refusal;
import leveltally.core.ledger.RoutingNumber;
import org.iban4j.BicFormatException;
import org.iban4j.BicUtil;
import org.iban4j.UnsupportedCountryException;

/**
 * Where money goes: an IBAN (ISO 13616) with the BIC (ISO 9362) of its bank where that is needed, or a routing number with an
 * account number.
 *
 * @param routing nine digits with a check digit that fits; empty with an IBAN
 * @param account the IBAN, or the account number, without spaces
 * @param savings a savings account, not a checking account; never with an IBAN
 * @param bic of the bank of an IBAN; empty where its account says it
 */
public record BankDetails(String routing, String account, boolean savings, String bic) {
    /** Which of the two kinds of account it is, as ways to pay need it. */
    public enum Kind {
        IBAN,
        ROUTED
    }

    private static final Pattern PLAIN_NUMBER = Pattern.compile("\\d{4,17}");
    private static final String SAVINGS = "savings";

    /** A checking account, or an IBAN without the BIC. */
    public BankDetails(String routing, String account) {
        this(routing, account, false, "");
    }

    /** Reads what somebody typed; an IBAN when no routing number is given. */
    public static BankDetails typed(String routing, String account) {
        return typed(routing, account, false, "");
    }

    /** @throws Refusal naming the field that cannot be so */
    public static BankDetails typed(String routing, String account, boolean savings, String bic) {
        String number = account.replaceAll("[\\s-]", "").toUpperCase(Locale.ROOT);
        String bank = routing.replaceAll("[\\s-]", "");
        String code = bic.replaceAll("\\s", "").toUpperCase(Locale.ROOT);
        if (bank.isEmpty()) {
            Iban.mustBe(number);
            if (!code.isEmpty()) {
                mustBeBic(code);
            }
            return new BankDetails("", number, false, code);
        }
        new RoutingNumber(bank);
        if (!PLAIN_NUMBER.matcher(number).matches()) {
            throw Refusal.invalidField("account-number", "account", "An account number has 4 to 17 digits.");
        }
        if (!code.isEmpty()) {
            throw Refusal.invalidField(
                    "bic", "bic", "The routing number says which bank it is. Leave the BIC empty, or give an IBAN.");
        }
        return new BankDetails(bank, number, savings, "");
    }

    /** @throws Refusal when it is no BIC (ISO 9362) */
    public static void mustBeBic(String bic) {
        try {
            BicUtil.validate(bic);
        } catch (UnsupportedCountryException ofNone) {
            if (!Iban.isOfNoCountry(bic.substring(4))) {
                throw notABic();
            }
        } catch (BicFormatException none) {
            throw notABic();
        }
    }

    private static Refusal notABic() {
        return Refusal.invalidField(
                "bic", "bic", "A BIC has 8 or 11 letters and digits: the bank, its country, its place.");
    }

    public Kind kind() {
        return routing.isEmpty() ? Kind.IBAN : Kind.ROUTED;
    }

    /** One text for one account, however it is reached: what the keyed hash is taken of that finds it with other vendors. */
    public String canonicalAccount() {
        return routing.isEmpty() ? account : routing + " " + account;
    }

    /** One text for all of it: what is sealed, and what the keyed hash for comparing is taken of. */
    public String canonical() {
        return canonicalAccount() + (savings ? " " + SAVINGS : "") + (bic.isEmpty() ? "" : " " + bic);
    }

    /** Reads {@link #canonical} back. */
    public static BankDetails of(String canonical) {
        String[] parts = canonical.split(" ");
        if (Character.isLetter(canonical.charAt(0))) {
            return new BankDetails("", parts[0], false, parts.length > 1 ? parts[1] : "");
        }
        return new BankDetails(parts[0], parts[1], parts.length > 2 && parts[2].equals(SAVINGS), "");
    }

    /** All that a screen shows: the kind, and the last four characters. */
    public String masked() {
        String last = account.substring(Math.max(0, account.length() - 4));
        return (routing.isEmpty()
                        ? "IBAN " + account.substring(0, 2)
                        : "routing " + routing + (savings ? ", savings account" : ", account"))
                + " ••••" + last + (bic.isEmpty() ? "" : ", " + bic);
    }
}
