package leveltally.core.bankfiles;

import java.text.Normalizer;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.function.Consumer;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/** From a value to what stands in a field: substituted, in its letters and characters, in its width. */
final class FieldText {
    private final LayoutField field;
    private final boolean fillsUp;
    private final Consumer<String> problem;

    /** @param problem told in a sentence what does not fit */
    FieldText(LayoutField field, Shape shape, Consumer<String> problem) {
        this.field = field;
        // between separators blanks fill nothing up: a width is the most there may be
        this.fillsUp = shape instanceof Shape.Fixed || field.fill() != ' ';
        this.problem = problem;
    }

    String day(LocalDate day) {
        return day.format(DateTimeFormatter.ofPattern(field.value(), Locale.ROOT));
    }

    String amount(Money amount) {
        boolean below = amount.isNegative();
        Money size = below ? amount.negated() : amount;
        String digits = switch (field.decimals()) {
            case POINT -> size.plain();
            case COMMA -> size.plain().replace('.', ',');
            case IMPLIED -> String.valueOf(size.minor());
        };
        if (below && field.sign() == LayoutField.Sign.NONE) {
            problem.accept(
                    "“" + amount.plain() + "” is below zero, and the field has no sign. Give it one in the layout.");
        }
        return digits;
    }

    /** The sign that belongs to an amount; empty for none. */
    String sign(Money amount) {
        boolean always =
                field.sign() == LayoutField.Sign.LEADING_ALWAYS || field.sign() == LayoutField.Sign.TRAILING_ALWAYS;
        if (field.sign() == LayoutField.Sign.NONE) {
            return "";
        }
        return amount.isNegative() ? "-" : always ? "+" : "";
    }

    /** The last digits, where a sum of numbers is longer than its field. */
    String hash(long sum) {
        String digits = String.valueOf(sum);
        int width = field.width();
        return width > 0 && digits.length() > width ? digits.substring(digits.length() - width) : digits;
    }

    /** The value as it is written, before it is filled up. */
    String written(String value) {
        String text = substituted(oneLine(value));
        text = switch (field.letters()) {
            case AS_THEY_ARE -> text;
            case UPPER -> text.toUpperCase(Locale.ROOT);
            case LOWER -> text.toLowerCase(Locale.ROOT);
        };
        return oneLine(allowed(text));
    }

    /** A line break, in a name or in what replaces something, would begin a record of its own. */
    private static String oneLine(String text) {
        return text.chars().anyMatch(Character::isISOControl) ? text.replaceAll("\\p{Cntrl}", " ") : text;
    }

    private String substituted(String value) {
        LayoutField.Substitutions by = field.substitutions();
        String other = by.values().get(value);
        if (other != null) {
            return other;
        }
        return switch (by.missing()) {
            case STAYS -> value;
            case OTHER -> by.other();
            case REFUSED -> {
                problem.accept("“" + value + "” has no substitution. Add one, or let it stand as it is.");
                yield value;
            }
        };
    }

    private String allowed(String text) {
        LayoutField.Characters by = field.characters();
        if (by.allowed().isEmpty() && by.replaced().isEmpty()) {
            return text;
        }
        StringBuilder written = new StringBuilder();
        text.codePoints().forEach(character -> written.append(allowed(character, by, text)));
        return written.toString();
    }

    private String allowed(int character, LayoutField.Characters by, String text) {
        String one = Character.toString(character);
        String other = by.replaced().get(one);
        if (other != null) {
            return other;
        }
        if (by.allows(character)) {
            return one;
        }
        String bare = bare(one, by);
        if (bare != null) {
            return bare;
        }
        return switch (by.beyond()) {
            case LEFT_OUT -> "";
            case OTHER -> by.other();
            case REFUSED -> {
                problem.accept("“" + one + "” in “" + text + "” is not among the characters the field takes, "
                        + by.allowed() + ". Name what replaces it.");
                yield one;
            }
        };
    }

    /** The letter without its accent, where that is allowed. */
    private static @Nullable String bare(String one, LayoutField.Characters by) {
        String bare = Normalizer.normalize(one, Normalizer.Form.NFD).replaceAll("\\p{M}", "");
        return !bare.isEmpty() && !bare.equals(one) && bare.codePoints().allMatch(by::allows) ? bare : null;
    }

    /** In its width, with its sign; what is too long is told, or cut where the field says so. */
    String placed(String text, String sign) {
        boolean trailing =
                field.sign() == LayoutField.Sign.TRAILING || field.sign() == LayoutField.Sign.TRAILING_ALWAYS;
        int width = field.width();
        if (width == 0) {
            return trailing ? text + sign : sign + text;
        }
        int room = width - sign.length();
        String value = text;
        int length = value.codePointCount(0, value.length());
        if (length > room) {
            if (!field.cut()) {
                problem.accept("“" + text + "” needs " + (length + sign.length()) + " characters, the field has "
                        + width + ". Widen it in the layout, or let it cut.");
            }
            value = room <= 0 ? "" : value.substring(0, value.offsetByCodePoints(0, room));
            length = Math.max(room, 0);
        }
        String padding = fillsUp ? Character.toString(field.fill()).repeat(room - length) : "";
        if (field.align() == LayoutField.Align.LEFT) {
            return trailing ? value + sign + padding : sign + value + padding;
        }
        // zeros stand between a sign and its figure, blanks before both
        boolean within = field.fill() != ' ';
        if (trailing) {
            return padding + value + sign;
        }
        return within ? sign + padding + value : padding + sign + value;
    }
}
