package leveltally.core.vendors;

import java.math.BigInteger;
import java.util.regex.Pattern;
import leveltally.core.Refusal;
import org.iban4j.Iban4jException;
import org.iban4j.IbanFormatException;
import org.iban4j.IbanFormatException.IbanFormatViolation;
import org.iban4j.IbanUtil;
import org.iban4j.InvalidCheckDigitException;
import org.iban4j.UnsupportedCountryException;

/** International bank account numbers (ISO 13616): their check digits, and the length and order each country has registered. */
final class Iban {
    private static final BigInteger NINETY_SEVEN = BigInteger.valueOf(97);
    private static final Pattern SHAPE = Pattern.compile("[A-Z]{2}\\d{2}[A-Z0-9]{11,30}");
    /** Codes that ISO 3166 keeps free for whoever needs one: no country has them, so no length is registered. */
    private static final Pattern OF_NO_COUNTRY = Pattern.compile("(AA|Q[M-Z]|X[A-JL-Z]|ZZ).*");

    private Iban() {}

    /** @throws Refusal in a sentence that says which part of it does not fit */
    static void mustBe(String number) {
        if (!SHAPE.matcher(number).matches()) {
            throw refused("it begins with two letters and two digits, and has 15 to 34 characters");
        }
        if (isOfNoCountry(number)) {
            if (!fits(number)) {
                throw refused("its check digits do not fit");
            }
            return;
        }
        try {
            IbanUtil.validate(number);
        } catch (InvalidCheckDigitException wrong) {
            throw refused("its check digits do not fit");
        } catch (UnsupportedCountryException none) {
            throw refused("no country that has them begins with " + number.substring(0, 2));
        } catch (IbanFormatException wrong) {
            throw refused(
                    wrong.getFormatViolation() == IbanFormatViolation.BBAN_LENGTH
                            ? "one of " + number.substring(0, 2) + " has " + length(number) + " characters, this has "
                                    + number.length()
                            : "letters and digits do not stand where those of " + number.substring(0, 2)
                                    + " have them");
        } catch (Iban4jException wrong) {
            throw refused("it is not written as one");
        }
    }

    /** Whether a text begins with a code that no country has. */
    static boolean isOfNoCountry(String text) {
        return OF_NO_COUNTRY.matcher(text).matches();
    }

    private static int length(String number) {
        return IbanUtil.getIbanLength(org.iban4j.CountryCode.getByCode(number.substring(0, 2)));
    }

    private static Refusal refused(String why) {
        return Refusal.invalidField(
                "iban",
                "account",
                "This is no IBAN: " + why
                        + ". Compare it with the vendor's letter, or give the routing number with a plain"
                        + " account number.");
    }

    /** Modulo 97 of the rearranged number is 1 (ISO 7064). */
    private static boolean fits(String number) {
        StringBuilder digits = new StringBuilder();
        (number.substring(4) + number.substring(0, 4))
                .chars()
                .forEach(c -> digits.append(Character.getNumericValue(c)));
        return new BigInteger(digits.toString()).mod(NINETY_SEVEN).equals(BigInteger.ONE);
    }
}
