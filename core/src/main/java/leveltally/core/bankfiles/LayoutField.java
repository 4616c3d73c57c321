package leveltally.core.bankfiles;

import java.util.Map;

/**
 * A field of a record.
 *
 * @param value the constant, or the pattern of a day such as {@code yyyyMMdd}; empty otherwise
 * @param width in characters; in a delimited file the most there may be, filled up with anything but blanks, 0 for as long as
 *     it is
 * @param cut a value too long is cut only where this says so; otherwise it is an error
 */
public record LayoutField(
        String name,
        Source source,
        String value,
        int width,
        Align align,
        char fill,
        boolean cut,
        Letters letters,
        Decimals decimals,
        Sign sign,
        Substitutions substitutions,
        Characters characters) {

    /** Which side the value stands on in its width. */
    public enum Align {
        LEFT,
        RIGHT
    }

    /** The case of its letters. */
    public enum Letters {
        AS_THEY_ARE,
        UPPER,
        LOWER
    }

    /** How an amount is written. */
    public enum Decimals {
        POINT,
        COMMA,
        /** Minor units, with nothing between. */
        IMPLIED
    }

    /** Where the sign of an amount below zero stands, and whether one above has a plus. */
    public enum Sign {
        /** Such an amount does not fit. */
        NONE,
        LEADING,
        TRAILING,
        LEADING_ALWAYS,
        TRAILING_ALWAYS
    }

    /**
     * Whole values written as others, such as ISSUE as I.
     *
     * @param missing what happens to a value that has none
     * @param other what is written instead, where missing says so
     */
    public record Substitutions(Map<String, String> values, Missing missing, String other) {
        public static final Substitutions NONE = new Substitutions(Map.of(), Missing.STAYS, "");

        public Substitutions {
            values = Map.copyOf(values);
        }

        /** What happens to a value without a substitution. */
        public enum Missing {
            STAYS,
            REFUSED,
            OTHER
        }
    }

    /**
     * Which characters a bank takes.
     *
     * @param allowed such as {@code A-Z0-9 .-}, a minus last or first for itself; empty for all the encoding has
     * @param replaced single characters written as other texts; accents that are not named lose them where the bare letter is
     *     allowed
     * @param beyond what happens to what is neither
     * @param other what is written instead, where beyond says so
     */
    public record Characters(String allowed, Map<String, String> replaced, Beyond beyond, String other) {
        public static final Characters ALL = new Characters("", Map.of(), Beyond.REFUSED, "");

        public Characters {
            replaced = Map.copyOf(replaced);
        }

        /** What happens to a character that is not allowed. */
        public enum Beyond {
            REFUSED,
            LEFT_OUT,
            OTHER
        }

        /** Whether a character may stand. */
        public boolean allows(int character) {
            if (allowed.isEmpty()) {
                return true;
            }
            int[] set = allowed.codePoints().toArray();
            for (int i = 0; i < set.length; i++) {
                boolean range = i + 2 < set.length && set[i + 1] == '-';
                if (range ? character >= set[i] && character <= set[i + 2] : character == set[i]) {
                    return true;
                }
                i += range ? 2 : 0;
            }
            return false;
        }
    }

    /** A field as texts mostly are: on the left, filled with blanks. */
    public static LayoutField of(String name, Source source, int width) {
        return new LayoutField(
                name,
                source,
                "",
                width,
                Align.LEFT,
                ' ',
                false,
                Letters.AS_THEY_ARE,
                Decimals.POINT,
                Sign.NONE,
                Substitutions.NONE,
                Characters.ALL);
    }

    /** A text that stands in every record. */
    public static LayoutField constant(String name, String text) {
        return of(name, Source.CONSTANT, text.length()).saying(text);
    }

    /** The same on the right, filled with this. */
    public LayoutField right(char with) {
        return new LayoutField(
                name, source, value, width, Align.RIGHT, with, cut, letters, decimals, sign, substitutions, characters);
    }

    /** The same with this constant or pattern. */
    public LayoutField saying(String text) {
        return new LayoutField(
                name, source, text, width, align, fill, cut, letters, decimals, sign, substitutions, characters);
    }

    /** The same, cut where it is too long. */
    public LayoutField cutting() {
        return new LayoutField(
                name, source, value, width, align, fill, true, letters, decimals, sign, substitutions, characters);
    }

    public LayoutField in(Letters other) {
        return new LayoutField(
                name, source, value, width, align, fill, cut, other, decimals, sign, substitutions, characters);
    }

    public LayoutField with(Decimals other) {
        return new LayoutField(
                name, source, value, width, align, fill, cut, letters, other, sign, substitutions, characters);
    }

    public LayoutField signed(Sign other) {
        return new LayoutField(
                name, source, value, width, align, fill, cut, letters, decimals, other, substitutions, characters);
    }

    public LayoutField with(Substitutions other) {
        return new LayoutField(
                name, source, value, width, align, fill, cut, letters, decimals, sign, other, characters);
    }

    public LayoutField with(Characters other) {
        return new LayoutField(
                name, source, value, width, align, fill, cut, letters, decimals, sign, substitutions, other);
    }
}
