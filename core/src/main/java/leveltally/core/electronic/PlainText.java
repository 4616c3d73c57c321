package leveltally.core.electronic;

import com.ibm.icu.text.Transliterator;
import java.text.Normalizer;
import java.util.Map;

/** The letters a kind of file can carry, and how a text is written in them. */
public enum PlainText {
    /** Printable ASCII. */
    ACH(PlainText.between(' ', '~'), Map.of("€", "EUR", "£", "GBP", "¥", "JPY")),
    /** What every bank takes in a credit transfer: letters, digits and {@code / - ? : ( ) . , ' +}. */
    TRANSFER(
            PlainText.between('a', 'z') + PlainText.between('A', 'Z') + PlainText.between('0', '9') + "/-?:().,'+ ",
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

    private static final int ASCII = 128;

    private final boolean[] carried = new boolean[ASCII];
    private final Map<String, String> written;

    PlainText(String letters, Map<String, String> written) {
        letters.chars().forEach(letter -> carried[letter] = true);
        this.written = Map.copyOf(written);
    }

    private static String between(char first, char last) {
        StringBuilder letters = new StringBuilder();
        for (char letter = first; letter <= last; letter++) {
            letters.append(letter);
        }
        return letters.toString();
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

    private boolean isPlain(char letter) {
        return letter < ASCII && carried[letter];
    }

    private static boolean isAscii(String text) {
        for (int i = 0; i < text.length(); i++) {
            if (text.charAt(i) >= ASCII) {
                return false;
            }
        }
        return true;
    }

    /** As it is written; what has no letters at all is a point. */
    public String of(String text) {
        if (isPlain(text)) {
            return text;
        }
        String bare = replaced(isAscii(text) ? text : bare(text));
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
