package leveltally.core.marks;

import java.util.Locale;
import java.util.regex.Pattern;

/** How alike two references of invoices are, as a typing mistake makes them. */
enum Likeness {
    SAME("the same reference"),
    ONE_SWAP("a reference with two neighbouring characters swapped"),
    ONE_DIGIT("a reference one digit away"),
    OTHER("another reference");

    private static final Pattern PUNCTUATION = Pattern.compile("[^\\p{L}\\p{N}]");
    private static final Pattern LEADING_ZEROS = Pattern.compile("(?<!\\p{N})0+(?=\\p{N})");

    private final String words;

    Likeness(String words) {
        this.words = words;
    }

    String words() {
        return words;
    }

    static Likeness of(String one, String other) {
        String a = lower(one);
        String b = lower(other);
        String bareA = withoutZeros(withoutPunctuation(a));
        String bareB = withoutZeros(withoutPunctuation(b));
        // INV-1-005 is INV-1-5: zeros lead a number also where punctuation began it
        boolean sameParts = withoutPunctuation(withoutZeros(a)).equals(withoutPunctuation(withoutZeros(b)));
        if (bareA.equals(bareB) || sameParts) {
            return SAME;
        }
        if (isOneSwap(bareA, bareB)) {
            return ONE_SWAP;
        }
        return isOneDigit(bareA, bareB) ? ONE_DIGIT : OTHER;
    }

    private static String lower(String reference) {
        return reference.toLowerCase(Locale.ROOT);
    }

    private static String withoutPunctuation(String reference) {
        return PUNCTUATION.matcher(reference).replaceAll("");
    }

    private static String withoutZeros(String reference) {
        return LEADING_ZEROS.matcher(reference).replaceAll("");
    }

    private static boolean isOneSwap(String a, String b) {
        if (a.length() != b.length()) {
            return false;
        }
        int at = firstDifference(a, b);
        return at + 1 < a.length()
                && a.charAt(at) == b.charAt(at + 1)
                && a.charAt(at + 1) == b.charAt(at)
                && a.substring(at + 2).equals(b.substring(at + 2));
    }

    /** One digit typed wrong, left out or typed twice. */
    private static boolean isOneDigit(String a, String b) {
        String shorter = a.length() <= b.length() ? a : b;
        String longer = a.length() <= b.length() ? b : a;
        int at = firstDifference(shorter, longer);
        if (longer.length() == shorter.length()) {
            return at < shorter.length()
                    && Character.isDigit(shorter.charAt(at))
                    && Character.isDigit(longer.charAt(at))
                    && shorter.substring(at + 1).equals(longer.substring(at + 1));
        }
        return longer.length() == shorter.length() + 1
                && Character.isDigit(longer.charAt(at))
                && shorter.substring(at).equals(longer.substring(at + 1));
    }

    private static int firstDifference(String a, String b) {
        int at = 0;
        while (at < a.length() && at < b.length() && a.charAt(at) == b.charAt(at)) {
            at++;
        }
        return at;
    }
}
