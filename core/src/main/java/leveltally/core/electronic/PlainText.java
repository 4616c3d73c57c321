package leveltally.core.electronic;

import com.ibm.icu.text.Transliterator;
import java.util.Map;

/** The letters a kind of file can carry, and how a text is written in them. */
public enum PlainText {
    /** Printable ASCII. */
    ACH("", Map.of("€", "EUR", "£", "GBP", "¥", "JPY")),
    /** What every bank takes in a credit transfer: letters, digits and {@code / - ? : ( ) . , ' +}. */
    TRANSFER(
            "/-?:().,'+ ",
            Map.ofEntries(
                    Map.entry("€", "EUR"),
                    Map.entry("£", "GBP"),
                    Map.entry("¥", "JPY"),
                    Map.entry("&", "+"),
                    Map.entry("@", "(at)"),
                    Map.entry("\"", "'"),
                    Map.entry("_", "-"),
                    Map.entry("#", "/"),
                    Map.entry("*", "."),
                    Map.entry(";", ","),
                    Map.entry("!", "."),
                    Map.entry("\\", "/"),
                    Map.entry("[", "("),
                    Map.entry("]", ")"),
                    Map.entry("{", "("),
                    Map.entry("}", ")")));

    /** Other scripts by how they sound, then letters without what stands above or below them. */
    private static final Transliterator LATIN = Transliterator.getInstance("Any-Latin; Latin-ASCII");

    private static final String NO_LETTER = ".";

    private final String signs;
    private final Map<String, String> written;

    PlainText(String signs, Map<String, String> written) {
        this.signs = signs;
        this.written = Map.copyOf(written);
    }

    /** What stands for what beyond letters, to be shown. */
    public Map<String, String> written() {
        return written;
    }

    public boolean isPlain(String text) {
        return text.chars().allMatch(this::isPlain);
    }

    private boolean isPlain(int letter) {
        return this == ACH
                ? letter >= ' ' && letter <= '~'
                : letter >= 'a' && letter <= 'z'
                        || letter >= 'A' && letter <= 'Z'
                        || letter >= '0' && letter <= '9'
                        || signs.indexOf(letter) >= 0;
    }

    /** As it is written; what has no letters at all is a point. */
    public String of(String text) {
        if (isPlain(text)) {
            return text;
        }
        StringBuilder plain = new StringBuilder();
        StringBuilder letters = new StringBuilder();
        text.codePoints().forEach(one -> {
            String other = written.get(Character.toString(one));
            if (other == null) {
                letters.appendCodePoint(one);
            } else {
                plain.append(latin(letters)).append(other);
                letters.setLength(0);
            }
        });
        return plain.append(latin(letters)).toString();
    }

    private String latin(StringBuilder letters) {
        StringBuilder plain = new StringBuilder();
        LATIN.transliterate(letters.toString()).codePoints().forEach(one -> {
            boolean gap = Character.isWhitespace(one) || Character.isISOControl(one);
            String sign = Character.toString(one);
            plain.append(gap ? " " : isPlain(one) ? sign : written.getOrDefault(sign, NO_LETTER));
        });
        return plain.toString();
    }
}
