package leveltally.core.bankfiles;

import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import leveltally.core.money.Money;

/** A file for the bank: its bytes, or everything that stands in the way of it. */
public record BankFile(List<String> records, byte[] bytes, List<Finding> findings) {

    /** One check event, as the bank is told of it. */
    public record Item(Kind kind, long number, Money amount, LocalDate date, String payee) {
        /** What the bank is told. */
        public enum Kind {
            ISSUE,
            VOID;

            public String words() {
                return name().toLowerCase(java.util.Locale.ROOT);
            }
        }
    }

    /** What the file as a whole is about. */
    public record About(
            String routingNumber, String accountNumber, Currency currency, LocalDate fileDate, long serial) {}

    /** How many events of one kind, and what they come to; issues and voids are never added. */
    public record Sums(int count, Money total) {
        public static Sums of(Item.Kind kind, List<Item> items, Currency currency) {
            List<Money> amounts = items.stream()
                    .filter(item -> item.kind() == kind)
                    .map(Item::amount)
                    .toList();
            return new Sums(amounts.size(), Money.sum(amounts, currency));
        }
    }

    /** A value that does not fit: {@code row} counts the details from 1, 0 is header or trailer. */
    public record Finding(int row, String field, String sentence) {}

    /** Describes {@code items} by {@code layout}; bytes are empty when there are findings. */
    public static BankFile of(Layout layout, About about, List<Item> items) {
        Writer writer = new Writer(layout, about, items);
        return writer.write();
    }

    /** The records of a file as its bytes hold them. */
    public static List<String> records(Layout layout, byte[] content) {
        String text = new String(content, Charset.forName(layout.encoding()));
        return text.isEmpty() ? List.of() : List.of(text.split(Pattern.quote(layout.lineEnd())));
    }

    private static final class Writer {
        private final Layout layout;
        private final About about;
        private final List<Item> items;
        private final List<Finding> findings = new ArrayList<>();
        private int row;

        Writer(Layout layout, About about, List<Item> items) {
            this.layout = layout;
            this.about = about;
            this.items = items;
        }

        BankFile write() {
            List<String> records = new ArrayList<>();
            add(records, layout.header(), null);
            for (Item item : items) {
                row++;
                add(records, layout.detail(), item);
            }
            row = 0;
            add(records, layout.trailer(), null);
            byte[] bytes = findings.isEmpty() ? encode(records) : new byte[0];
            return new BankFile(records, findings.isEmpty() ? bytes : new byte[0], List.copyOf(findings));
        }

        private void add(
                List<String> records, List<Layout.Field> fields, @org.jspecify.annotations.Nullable Item item) {
            if (!fields.isEmpty()) {
                records.add(fields.stream().map(field -> put(field, item)).collect(Collectors.joining()));
            }
        }

        private String put(Layout.Field field, @org.jspecify.annotations.Nullable Item item) {
            String value = value(field, item);
            value = field.substitutions().getOrDefault(value, value);
            if (field.upperCase()) {
                value = value.toUpperCase(Locale.ROOT);
            }
            if (value.chars().anyMatch(Character::isISOControl)) {
                value = value.replaceAll("\\p{Cntrl}", " ");
            }
            if (value.length() > field.width()) {
                if (!field.cut()) {
                    String sentence = "“" + value + "” needs " + value.length() + " characters, the field has "
                            + field.width() + ". Widen it in the layout, or let it cut.";
                    findings.add(new Finding(row, field.name(), sentence));
                }
                value = value.substring(0, field.width());
            }
            checkCharacters(field, value);
            String padding = String.valueOf(field.fill()).repeat(field.width() - value.length());
            return field.align() == Layout.Align.LEFT ? value + padding : padding + value;
        }

        private void checkCharacters(Layout.Field field, String value) {
            var encoder = Charset.forName(layout.encoding()).newEncoder();
            value.codePoints()
                    .filter(c -> !encoder.canEncode(Character.toString(c)))
                    .findFirst()
                    .ifPresent(c -> findings.add(new Finding(
                            row,
                            field.name(),
                            "“" + Character.toString(c) + "” in “" + value + "” is not in " + layout.encoding()
                                    + ". Add a substitution for it, or change the encoding.")));
        }

        private String value(Layout.Field field, @org.jspecify.annotations.Nullable Item item) {
            return switch (field.source()) {
                case CONSTANT -> field.value();
                case KIND -> of(item).kind().name();
                case NUMBER -> String.valueOf(of(item).number());
                case AMOUNT -> amount(field, of(item).amount());
                case DATE -> of(item).date().format(DateTimeFormatter.ofPattern(field.value(), Locale.ROOT));
                case PAYEE -> of(item).payee();
                case ACCOUNT_NUMBER -> about.accountNumber();
                case ROUTING_NUMBER -> about.routingNumber();
                case FILE_DATE -> about.fileDate().format(DateTimeFormatter.ofPattern(field.value(), Locale.ROOT));
                case FILE_SERIAL -> String.valueOf(about.serial());
                case COUNT -> String.valueOf(items.size());
                case ISSUE_COUNT -> String.valueOf(sums(Item.Kind.ISSUE).count());
                case ISSUE_TOTAL -> amount(field, sums(Item.Kind.ISSUE).total());
                case VOID_COUNT -> String.valueOf(sums(Item.Kind.VOID).count());
                case VOID_TOTAL -> amount(field, sums(Item.Kind.VOID).total());
            };
        }

        private Sums sums(Item.Kind kind) {
            return Sums.of(kind, items, about.currency());
        }

        private static Item of(@org.jspecify.annotations.Nullable Item item) {
            if (item == null) {
                throw new IllegalArgumentException("layout: header and trailer have no check to speak of");
            }
            return item;
        }

        private static String amount(Layout.Field field, Money amount) {
            return field.impliedDecimals() ? String.valueOf(amount.minor()) : amount.plain();
        }

        private byte[] encode(List<String> records) {
            String text =
                    records.stream().map(record -> record + layout.lineEnd()).collect(Collectors.joining());
            try {
                ByteBuffer buffer =
                        Charset.forName(layout.encoding()).newEncoder().encode(CharBuffer.wrap(text));
                byte[] bytes = new byte[buffer.remaining()];
                buffer.get(bytes);
                return bytes;
            } catch (CharacterCodingException checkedFieldByField) {
                throw new IllegalStateException(checkedFieldByField);
            }
        }
    }
}
