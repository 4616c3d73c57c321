package leveltally.core.people;

import java.util.Locale;
import java.util.function.Predicate;
import leveltally.core.Refusal;

/** What makes a password good enough: its length, and that nobody would guess it first. */
public final class Passwords {
    public static final int SHORTEST = 12;
    public static final int LONGEST = 200;

    private Passwords() {}

    /**
     * @param common whether a text, in small letters, is on the list of passwords that are tried first
     * @throws Refusal saying what is wrong with it
     */
    public static void check(String password, String signIn, String name, Predicate<String> common) {
        String small = password.toLowerCase(Locale.ROOT);
        if (password.length() < SHORTEST || password.length() > LONGEST) {
            throw wrong("A password has " + SHORTEST + " to " + LONGEST
                    + " characters. Three or four words that do not belong together are easy to remember.");
        }
        if (small.chars().distinct().count() < 5) {
            throw wrong("This password repeats a few characters. Choose one that nobody guesses.");
        }
        for (String part : (signIn + " " + name).toLowerCase(Locale.ROOT).split("[^\\p{L}\\p{N}]+")) {
            if (part.length() >= 4 && small.contains(part)) {
                throw wrong("This password holds the name of its person. Choose one that nobody guesses.");
            }
        }
        // a common one stays common with digits and signs around it, and said twice
        String core = small.replaceAll("^[^\\p{L}]+|[^\\p{L}]+$", "");
        if (common.test(small) || common.test(core) || common.test(core.replaceAll("^(.+?)\\1+$", "$1"))) {
            throw wrong("This password is on the list of common ones, which are tried first. Choose another.");
        }
    }

    private static Refusal wrong(String sentence) {
        return Refusal.invalidField("password", "password", sentence);
    }
}
