package leveltally.core.electronic;

import java.text.Normalizer;
import java.util.Map;

/** The characters of ACH records: printable ASCII. Letters lose their accents, some signs are written otherwise. */
public final class AchText {
    private static final Map<String, String> WRITTEN = Map.ofEntries(
            Map.entry("ß", "ss"),
            Map.entry("Æ", "AE"),
            Map.entry("æ", "ae"),
            Map.entry("Ø", "O"),
            Map.entry("ø", "o"),
            Map.entry("Œ", "OE"),
            Map.entry("œ", "oe"),
            Map.entry("Ł", "L"),
            Map.entry("ł", "l"),
            Map.entry("Đ", "D"),
            Map.entry("đ", "d"),
            Map.entry("Þ", "Th"),
            Map.entry("þ", "th"),
            Map.entry("’", "'"),
            Map.entry("‘", "'"),
            Map.entry("“", "\""),
            Map.entry("”", "\""),
            Map.entry("–", "-"),
            Map.entry("—", "-"),
            Map.entry("€", "EUR"));

    private static final String NO_LETTER = ".";

    private AchText() {}

    /** What stands for what, to be shown. */
    public static Map<String, String> written() {
        return WRITTEN;
    }

    public static boolean isPlain(String text) {
        return text.chars().allMatch(letter -> letter >= ' ' && letter <= '~');
    }

    /** As it is written; a letter of another script is a point. */
    public static String of(String text) {
        if (isPlain(text)) {
            return text;
        }
        StringBuilder plain = new StringBuilder();
        text.codePoints().forEach(letter -> plain.append(of(letter)));
        return plain.toString();
    }

    private static String of(int letter) {
        String one = Character.toString(letter);
        if (isPlain(one)) {
            return one;
        }
        String other = WRITTEN.get(one);
        if (other != null) {
            return other;
        }
        if (Character.isWhitespace(letter) || Character.isISOControl(letter)) {
            return " ";
        }
        String bare = Normalizer.normalize(one, Normalizer.Form.NFKD).replaceAll("\\p{M}", "");
        return !bare.isEmpty() && isPlain(bare) ? bare : NO_LETTER;
    }
}
