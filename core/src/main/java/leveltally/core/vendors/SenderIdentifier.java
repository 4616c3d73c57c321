package leveltally.core.vendors;

import java.util.Locale;
import leveltally.core.Refusal;

/**
 * What a vendor calls itself in the documents it sends, as it is compared.
 *
 * @param scheme the kind, and the register its value stands in where one is named, such as {@code endpoint 0192}
 */
public record SenderIdentifier(String scheme, String value) {
    private static final int LONGEST_SCHEME = 30;
    private static final int LONGEST_VALUE = 120;
    private static final String REGISTER = "[0-9A-Za-z:-]{0,15}";

    /** What somebody can say of a vendor by hand; the strongest first. */
    public enum Kind {
        ENDPOINT("electronic address"),
        TAX("tax number on documents"),
        LEGAL("number in a company register"),
        IDENTIFICATION("other identification"),
        NAME("name on documents");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        public String scheme() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** As a document has it: spaces and letters' size do not matter, and what is too long is compared by its beginning. */
    public static SenderIdentifier of(String scheme, String value) {
        return new SenderIdentifier(cut(scheme, LONGEST_SCHEME), cut(plain(value), LONGEST_VALUE));
    }

    /** @throws Refusal naming the field, where it cannot be what a document has */
    public static SenderIdentifier typed(Kind kind, String register, String value) {
        if (plain(value).isEmpty() || plain(value).length() > LONGEST_VALUE) {
            throw Refusal.invalidField(
                    "identifier-missing", "value", "Write what stands on the vendor's documents, in 120 characters.");
        }
        String code = register.strip();
        if (!code.matches(REGISTER)) {
            throw Refusal.invalidField(
                    "no-register",
                    "register",
                    "A register is named by its code of letters and digits, such as 0192. Leave it empty if none is named.");
        }
        return of(code.isEmpty() ? kind.scheme() : kind.scheme() + " " + code, value);
    }

    private static String plain(String value) {
        return value.strip().replaceAll("\\s+", " ").toUpperCase(Locale.ROOT);
    }

    private static String cut(String text, int most) {
        return text.substring(0, Math.min(most, text.length()));
    }
}
