package leveltally.core.bankfiles;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.format.ResolverStyle;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import leveltally.core.money.DecimalMark;
import leveltally.core.money.Money;

/** From what stands in a field to its value: {@link FieldText} backwards. */
final class FieldValue {
    private static final Pattern DIGITS = Pattern.compile("\\d{1,18}");
    private static final int LONGEST_SHOWN = 40;

    private final LayoutField field;

    FieldValue(LayoutField field) {
        this.field = field;
    }

    /** What does not read. */
    static final class Unreadable extends Exception {
        Unreadable(String sentence) {
            super(sentence, null, false, false);
        }

        String sentence() {
            return String.valueOf(getMessage());
        }
    }

    /** The text without what fills it up, as it was before it was substituted. */
    String text(String stands) throws Unreadable {
        return original(bare(stands, 0));
    }

    /** What fills up is taken away on the side where it stands; of a figure that is all zeros, one is left. */
    private String bare(String stands, int left) {
        int from = 0;
        int to = stands.length();
        char fill = field.fill();
        if (field.align() == LayoutField.Align.RIGHT) {
            while (from < to - left && stands.charAt(from) == fill) {
                from++;
            }
        } else {
            while (to > from + left && stands.charAt(to - 1) == fill) {
                to--;
            }
        }
        return stands.substring(from, to).strip();
    }

    private String original(String written) throws Unreadable {
        LayoutField.Substitutions by = field.substitutions();
        List<String> meant = by.values().entrySet().stream()
                .filter(one -> one.getValue().equals(written))
                .map(Map.Entry::getKey)
                .sorted()
                .toList();
        if (meant.size() == 1) {
            return meant.get(0);
        }
        if (meant.size() > 1) {
            throw new Unreadable("“" + written + "” stands for " + String.join(" and for ", meant)
                    + ", so it cannot be told which. Give each its own in the layout.");
        }
        return switch (by.missing()) {
            case STAYS -> written;
            case OTHER -> by.other().equals(written) ? theOther(by).orElse(written) : written;
            case REFUSED ->
                throw new Unreadable(
                        "“" + shown(written) + "” stands for nothing the layout knows. Add what it stands for.");
        };
    }

    /** Of the kinds of events the one without a substitution, where there is but one. */
    private Optional<String> theOther(LayoutField.Substitutions by) {
        for (Kinds kinds : Kinds.values()) {
            if (kinds.words.containsAll(by.values().keySet())) {
                List<String> left = kinds.words.stream()
                        .filter(word -> !by.values().containsKey(word))
                        .toList();
                return left.size() == 1 ? Optional.of(left.get(0)) : Optional.empty();
            }
        }
        return Optional.empty();
    }

    /** The kinds of events of one file. */
    private enum Kinds {
        TOLD("ISSUE", "VOID"),
        DECIDED("PAY", "RETURN"),
        ANSWERED("TAKEN", "REFUSED"),
        MODE("LIVE", "TEST"),
        PAID("PAID", "REVERSED"),
        MOVED("OUT", "IN");

        private final List<String> words;

        Kinds(String first, String second) {
            this.words = List.of(first, second);
        }
    }

    /** A number, or the digits of a sum of numbers. */
    long figure(String stands) throws Unreadable {
        String digits = original(bare(stands, 1));
        if (!DIGITS.matcher(digits).matches()) {
            throw new Unreadable("“" + shown(stands) + "” is no number.");
        }
        return Long.parseLong(digits);
    }

    LocalDate day(String stands) throws Unreadable {
        String text = text(stands);
        try {
            // u where a pattern has y: a year of the era would leave the era open
            return LocalDate.parse(
                    text,
                    DateTimeFormatter.ofPattern(field.value().replace('y', 'u'), Locale.ROOT)
                            .withResolverStyle(ResolverStyle.STRICT));
        } catch (DateTimeException noDay) {
            throw new Unreadable("“" + shown(stands) + "” is no day written as " + field.value() + ".");
        }
    }

    /** An amount with its sign; a figure that fills its field with zeros keeps one. */
    Money amount(String stands, Currency currency) throws Unreadable {
        String text = stands.strip();
        boolean below = text.startsWith("-") || text.endsWith("-");
        boolean signed = below || text.startsWith("+") || text.endsWith("+");
        if (signed && field.sign() == LayoutField.Sign.NONE) {
            throw new Unreadable(
                    "“" + shown(text) + "” has a sign, and the field has none. Give it one in the layout.");
        }
        boolean leads = text.startsWith("-") || text.startsWith("+");
        String digits = !signed ? text : leads ? text.substring(1) : text.substring(0, text.length() - 1);
        digits = original(bare(digits.strip(), 1));
        try {
            Money size;
            if (field.decimals() == LayoutField.Decimals.IMPLIED) {
                if (!DIGITS.matcher(digits).matches()) {
                    throw new Unreadable("“" + shown(stands) + "” is no amount in " + currency + " without a mark.");
                }
                size = Money.ofMinor(Long.parseLong(digits), currency);
                if (size.toDecimal().compareTo(Money.MOST) > 0) {
                    throw new Unreadable("“" + shown(stands) + "” is more than one amount can be.");
                }
            } else {
                boolean point = field.decimals() == LayoutField.Decimals.POINT;
                String whole = digits.startsWith(point ? "." : ",") ? "0" + digits : digits;
                size = Money.parse(whole, currency, point ? DecimalMark.POINT : DecimalMark.COMMA);
            }
            return below ? size.negated() : size;
        } catch (IllegalArgumentException noAmount) {
            throw new Unreadable(noAmount.getMessage() + ".");
        }
    }

    private static String shown(String text) {
        return text.length() > LONGEST_SHOWN ? text.substring(0, LONGEST_SHOWN) + "…" : text;
    }
}
