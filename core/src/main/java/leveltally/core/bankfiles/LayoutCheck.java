package leveltally.core.bankfiles;

import java.nio.charset.Charset;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Currency;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import leveltally.core.Refusal;

/** What is wrong with a layout, whatever events it is used on. */
public final class LayoutCheck {
    private static final int MOST_RECORDS = 20;
    private static final int MOST_FIELDS = 200;
    private static final int WIDEST = 2_000;

    private static final BankFile.About ANY =
            new BankFile.About("990044105", "4417", Currency.getInstance("USD"), LocalDate.of(2026, 11, 13), 1);

    private LayoutCheck() {}

    /**
     * @param record counted from 1; 0 for the file as a whole
     * @param field counted from 1 within its record; 0 for the record
     */
    public record Wrong(int record, int field, String sentence) {}

    public static List<Wrong> of(Layout layout) {
        List<Wrong> wrong = new ArrayList<>();
        if (!canWrite(layout.encoding())) {
            wrong.add(new Wrong(0, 0, "“" + layout.encoding() + "” is no encoding this machine can write."));
        }
        if (List.of("UTF-16", "UTF-32").contains(layout.encoding().toUpperCase(Locale.ROOT))) {
            wrong.add(new Wrong(
                    0, 0, "Say which byte comes first: " + layout.encoding() + "LE or " + layout.encoding() + "BE."));
        }
        if (layout.byteOrderMark()
                && !layout.encoding().toUpperCase(Locale.ROOT).startsWith("UTF-")) {
            wrong.add(
                    new Wrong(0, 0, layout.encoding() + " has no byte order mark; only the encodings of Unicode do."));
        }
        if (!layout.use().isRead()) {
            fileName(layout, wrong);
        }
        if (layout.at(LayoutRecord.Place.DETAIL).isEmpty()) {
            wrong.add(new Wrong(0, 0, "No record tells of a check: add a detail."));
        }
        if (layout.records().size() > MOST_RECORDS) {
            wrong.add(new Wrong(0, 0, "A layout has at most " + MOST_RECORDS + " records."));
        }
        if (layout.lineEnd() == Layout.LineEnd.NONE && layout.shape() instanceof Shape.Delimited) {
            wrong.add(new Wrong(0, 0, "Delimited records need something that ends them."));
        }
        if (layout.shape() instanceof Shape.Delimited by && by.separator() == by.quote()) {
            wrong.add(new Wrong(0, 0, "The separator and the quote are the same character."));
        }
        switch (layout.use()) {
            case POSITIVE_PAY -> told(layout, wrong);
            case DECISIONS -> decided(layout, wrong);
            case ANSWER -> answered(layout, wrong);
            case PAID_CHECKS, STATEMENT -> read(layout, wrong);
        }
        if (layout.use() != Layout.Use.POSITIVE_PAY
                && layout.at(LayoutRecord.Place.DETAIL).stream()
                        .anyMatch(detail -> detail.tells() != LayoutRecord.Tells.BOTH)) {
            wrong.add(new Wrong(
                    0, 0, "A file of " + layout.use().words() + " has no issues and voids: its details are for both."));
        }
        for (int i = 0; i < layout.records().size(); i++) {
            record(layout, i + 1, layout.records().get(i), wrong);
        }
        if (layout.lineEnd() == Layout.LineEnd.NONE) {
            long lengths = layout.records().stream()
                    .map(record -> record.fields().stream()
                            .mapToInt(LayoutField::width)
                            .sum())
                    .distinct()
                    .count();
            if (lengths > 1) {
                wrong.add(new Wrong(0, 0, "With nothing between them, all records have one length; these differ."));
            }
        }
        return List.copyOf(wrong);
    }

    private static void fileName(Layout layout, List<Wrong> wrong) {
        try {
            FileName.of(layout.fileName(), ANY);
        } catch (Refusal noName) {
            wrong.add(new Wrong(0, 0, noName.sentence()));
        }
    }

    /** A movement has its day and its amount, and a check its number. */
    private static void read(Layout layout, List<Wrong> wrong) {
        Set<Source> told = sources(layout, LayoutRecord.Place.DETAIL);
        if (!told.contains(Source.AMOUNT) && !(told.contains(Source.AMOUNT_OUT) && told.contains(Source.AMOUNT_IN))) {
            wrong.add(new Wrong(0, 0, "No detail tells the amount, or what went out and what came in."));
        }
        if (!told.contains(Source.EVENT_DATE)) {
            wrong.add(new Wrong(0, 0, "No detail tells the day on which the bank paid."));
        }
        if (layout.use() == Layout.Use.PAID_CHECKS) {
            numbered(told, wrong);
        }
    }

    private static Set<Source> sources(Layout layout, LayoutRecord.Place place) {
        Set<Source> sources = EnumSet.noneOf(Source.class);
        layout.at(place).forEach(record -> record.fields().forEach(field -> sources.add(field.source())));
        return sources;
    }

    private static void numbered(Set<Source> told, List<Wrong> wrong) {
        if (!told.contains(Source.NUMBER) && !told.contains(Source.NUMBER_AS_PRINTED)) {
            wrong.add(new Wrong(0, 0, "No detail tells the number of a check."));
        }
    }

    /** Which check, and what becomes of it. */
    private static void decided(Layout layout, List<Wrong> wrong) {
        Set<Source> told = sources(layout, LayoutRecord.Place.DETAIL);
        numbered(told, wrong);
        if (!told.contains(Source.KIND)) {
            wrong.add(new Wrong(0, 0, "No detail tells whether a check is paid or returned."));
        }
    }

    /** Of which file, and what the bank says of it. */
    private static void answered(Layout layout, List<Wrong> wrong) {
        numbered(sources(layout, LayoutRecord.Place.DETAIL), wrong);
        Set<Source> file = sources(layout, LayoutRecord.Place.HEADER);
        file.addAll(sources(layout, LayoutRecord.Place.TRAILER));
        if (!file.contains(Source.FILE_NAME) && !file.contains(Source.FILE_SERIAL)) {
            wrong.add(
                    new Wrong(0, 0, "Header and trailer do not tell which file is answered: its name or its serial."));
        }
    }

    private static boolean canWrite(String encoding) {
        try {
            return Charset.forName(encoding).canEncode();
        } catch (IllegalArgumentException noEncoding) {
            return false;
        }
    }

    /** Each kind of event has a detail. */
    private static void told(Layout layout, List<Wrong> wrong) {
        List<LayoutRecord.Tells> details = layout.at(LayoutRecord.Place.DETAIL).stream()
                .map(LayoutRecord::tells)
                .toList();
        if (!details.isEmpty() && !details.contains(LayoutRecord.Tells.BOTH)) {
            if (!details.contains(LayoutRecord.Tells.ISSUES)) {
                wrong.add(new Wrong(0, 0, "No detail tells of an issue."));
            }
            if (!details.contains(LayoutRecord.Tells.VOIDS)) {
                wrong.add(new Wrong(0, 0, "No detail tells of a void: the bank would pay what was voided."));
            }
        }
    }

    private static void record(Layout layout, int number, LayoutRecord record, List<Wrong> wrong) {
        if (record.fields().isEmpty()) {
            wrong.add(new Wrong(number, 0, "This " + record.place().words() + " has no fields."));
        }
        if (record.fields().size() > MOST_FIELDS) {
            wrong.add(new Wrong(number, 0, "A record has at most " + MOST_FIELDS + " fields."));
        }
        Set<String> names = new HashSet<>();
        boolean payee = false;
        for (int i = 0; i < record.fields().size(); i++) {
            LayoutField field = record.fields().get(i);
            int at = i + 1;
            if (field.name().isBlank() || !names.add(field.name().toLowerCase(Locale.ROOT))) {
                wrong.add(new Wrong(number, at, "A field has a name of its own in its record."));
            }
            if (field.source().isOfEvent() && record.place() != LayoutRecord.Place.DETAIL) {
                wrong.add(new Wrong(
                        number, at, "A " + record.place().words() + " knows of no single check; only a detail does."));
            }
            if (field.source() == Source.PAYEE_GOES_ON && !payee) {
                wrong.add(new Wrong(number, at, "It goes on from a field of the payee, which stands before it."));
            }
            payee |= field.source() == Source.PAYEE;
            field(layout, number, at, field, wrong);
        }
    }

    private static void field(Layout layout, int record, int at, LayoutField field, List<Wrong> wrong) {
        boolean fixed = layout.shape() instanceof Shape.Fixed;
        if (field.width() < (fixed ? 1 : 0) || field.width() > WIDEST) {
            wrong.add(new Wrong(record, at, "Its width is " + (fixed ? "1" : "0") + " to " + WIDEST + "."));
        }
        if (layout.use().isRead()
                && field.substitutions().values().values().stream().distinct().count()
                        < field.substitutions().values().size()) {
            wrong.add(new Wrong(record, at, "Two of its substitutions stand for one value: read, it would be either."));
        }
        if (field.source().form() == Source.Form.DAY && !isPattern(field.value())) {
            wrong.add(new Wrong(
                    record, at, "“" + field.value() + "” describes no day. Write it so: yyyyMMdd, or MM/dd/yy."));
        }
        if (Character.isISOControl(field.fill())) {
            wrong.add(new Wrong(record, at, "It is filled up with a character that nobody sees."));
        }
        boolean figure = field.source().form() != Source.Form.TEXT;
        if (figure && field.align() == LayoutField.Align.LEFT && Character.isDigit(field.fill())) {
            wrong.add(new Wrong(record, at, "A figure on the left, filled with digits, would be read as another one."));
        }
        if (figure && field.cut()) {
            wrong.add(new Wrong(record, at, "A figure or a day is never cut: what is left of it would be wrong."));
        }
        if (!field.source().standsIn(layout.use())) {
            wrong.add(new Wrong(
                    record, at, "A file of " + layout.use().words() + " does not hold " + words(field.source()) + "."));
        }
        field.substitutions().values().keySet().stream()
                .filter(String::isEmpty)
                .findFirst()
                .ifPresent(none -> wrong.add(new Wrong(record, at, "A substitution names the value it is for.")));
    }

    private static String words(Source source) {
        return source.name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    private static boolean isPattern(String pattern) {
        try {
            return !pattern.isBlank()
                    && !LocalDate.of(2026, 11, 13)
                            .format(DateTimeFormatter.ofPattern(pattern, Locale.ROOT))
                            .equals(LocalDate.of(2027, 1, 2).format(DateTimeFormatter.ofPattern(pattern, Locale.ROOT)));
        } catch (IllegalArgumentException | java.time.DateTimeException noPattern) {
            return false;
        }
    }
}
