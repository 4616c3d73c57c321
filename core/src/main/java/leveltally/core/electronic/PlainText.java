package leveltally.core.electronic;

import com.ibm.icu.text.Transliterator;
import java.text.Normalizer;
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
        for (int i = 0; i < text.length(); i++) {
            if (!isPlain(text.charAt(i))) {
                return false;
            }
        }
        return true;
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
        String bare = replaced(bare(text));
        return isPlain(bare) ? bare : latin(replaced(text));
    }

    /** Without accents: most names need no more, and the other way takes a hundred times as long. */
    private static String bare(String text) {
        String parted = Normalizer.normalize(text, Normalizer.Form.NFD);
        StringBuilder bare = new StringBuilder(parted.length());
        for (int i = 0; i < parted.length(); i++) {
            if (Character.getType(parted.charAt(i)) != Character.NON_SPACING_MARK) {
                bare.append(parted.charAt(i));
            }
        }
        return bare.toString();
    }

    /** With its signs written otherwise. */
    private String replaced(String text) {
        StringBuilder replaced = new StringBuilder(text.length());
        for (int i = 0; i < text.length(); i++) {
            char one = text.charAt(i);
            if (isPlain(one)) {
                replaced.append(one);
            } else {
                String sign = String.valueOf(one);
                replaced.append(written.getOrDefault(sign, Character.isISOControl(one) ? " " : sign));
            }
        }
        return replaced.toString();
    }

    private String latin(String text) {
        StringBuilder plain = new StringBuilder();
        LATIN.transliterate(text).codePoints().forEach(one -> {
            String sign = Character.toString(one);
            plain.append(
                    isPlain(sign) ? sign : Character.isWhitespace(one) ? " " : written.getOrDefault(sign, NO_LETTER));
        });
        return plain.toString();
    }
}
