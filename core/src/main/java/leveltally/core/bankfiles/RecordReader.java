package leveltally.core.bankfiles;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.CodingErrorAction;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import leveltally.core.Refusal;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * Reads a file by its layout: {@link RecordWriter} backwards. A file is read whole or not at all: what is none of its records,
 * a trailer that is missing and counts that do not agree are refused; a value that does not read is told by line and field.
 */
public final class RecordReader {
    private static final Pattern LINE = Pattern.compile("\r\n|\r|\n");
    private static final char MARK = '\uFEFF';
    /** What a file of the days of tapes ends with. */
    private static final String END_OF_TAPE = "\u001A";

    private static final int LONGEST_SHOWN = 60;
    private static final int MOST_FINDINGS = 200;

    private final Layout layout;
    private final Currency currency;
    private final List<Finding> findings = new ArrayList<>();

    private RecordReader(Layout layout, Currency currency) {
        this.layout = layout;
        this.currency = currency;
    }

    /** A value that does not read, in a line counted from 1. */
    public record Finding(int line, String field, String sentence) {}

    /**
     * What one event says.
     *
     * @param line where its first record stands, counted from 1
     */
    public record Event(int line, Values values) {}

    /** Values by what they are; what a file leaves empty has none. */
    public record Values(Map<Source, Object> all) {
        public Values {
            all = Map.copyOf(all);
        }

        public Optional<String> text(Source of) {
            return Optional.ofNullable((String) all.get(of)).filter(text -> !text.isEmpty());
        }

        public Optional<Long> figure(Source of) {
            return Optional.ofNullable((Long) all.get(of));
        }

        public Optional<Money> amount(Source of) {
            return Optional.ofNullable((Money) all.get(of));
        }

        public Optional<LocalDate> day(Source of) {
            return Optional.ofNullable((LocalDate) all.get(of));
        }
    }

    /**
     * A file that was read.
     *
     * @param file what header and trailer say
     * @param findings what does not read; where there are any, the events are not all there is
     */
    public record Read(Values file, List<Event> events, List<Finding> findings) {
        public Read {
            events = List.copyOf(events);
            findings = List.copyOf(findings);
        }
    }

    /**
     * @param currency of the account
     * @throws Refusal when it is no file of this layout, or not a whole one
     */
    public static Read read(Layout layout, Currency currency, byte[] content) {
        return new RecordReader(layout, currency).read(content);
    }

    private Read read(byte[] content) {
        List<String> lines = lines(decoded(content));
        int before = layout.before();
        int after = layout.after();
        if (lines.size() < before + after) {
            throw refused(
                    "cut-off",
                    "It has " + lines.size() + (lines.size() == 1 ? " record" : " records")
                            + "; header and trailer alone are " + (before + after) + ". It may be cut off.");
        }
        Map<Source, Object> file = new EnumMap<>(Source.class);
        List<LayoutRecord> headers = layout.at(LayoutRecord.Place.HEADER);
        for (int i = 0; i < before; i++) {
            List<String> cells = cells(lines.get(i), headers.get(i));
            if (cells == null) {
                throw noRecord(lines, i, "the header this layout begins with");
            }
            take(headers.get(i), cells, i + 1, file);
        }
        List<LayoutRecord> trailers = layout.at(LayoutRecord.Place.TRAILER);
        int end = lines.size() - after;
        List<List<String>> last = new ArrayList<>();
        for (int i = 0; i < after; i++) {
            List<String> cells = cells(lines.get(end + i), trailers.get(i));
            if (cells == null) {
                throw refused(
                        "trailer-missing",
                        "Its last record, “" + shown(lines.get(end + i)) + "”, is not the trailer this layout ends"
                                + " with. It may be cut off.");
            }
            last.add(cells);
        }
        List<Event> events = events(lines, before, end);
        for (int i = 0; i < after; i++) {
            take(trailers.get(i), last.get(i), end + i + 1, file);
        }
        Values values = new Values(file);
        if (findings.isEmpty()) {
            new SaidSums(layout, currency, values, events).mustAgree(lines.size());
        }
        return new Read(values, events, findings);
    }

    private List<Event> events(List<String> lines, int from, int end) {
        List<LayoutRecord> details = layout.at(LayoutRecord.Place.DETAIL);
        List<Event> events = new ArrayList<>();
        int at = from;
        while (at < end && findings.size() < MOST_FINDINGS) {
            int first = at;
            Map<Source, Object> values = new EnumMap<>(Source.class);
            for (LayoutRecord detail : details) {
                if (!detail.tells().mayTell((String) values.get(Source.KIND))) {
                    continue;
                }
                List<String> cells = at < end ? cells(lines.get(at), detail) : null;
                if (cells != null) {
                    take(detail, cells, at + 1, values);
                    detail.tells().only().ifPresent(kind -> values.put(Source.KIND, kind.name()));
                    at++;
                } else if (detail.tells() == LayoutRecord.Tells.BOTH) {
                    throw at == end
                            ? refused("cut-off", "It ends in the middle of what it says of line " + (first + 1) + ".")
                            : noRecord(lines, at, "a record of this layout");
                }
            }
            if (at == first) {
                throw noRecord(lines, at, "a record of this layout");
            }
            events.add(new Event(first + 1, new Values(values)));
        }
        return events;
    }

    private void take(LayoutRecord record, List<String> cells, int line, Map<Source, Object> values) {
        for (int i = 0; i < cells.size(); i++) {
            LayoutField field = record.fields().get(i);
            try {
                Object value = value(field, cells.get(i), currency);
                if (value != null
                        && values.put(field.source(), value) instanceof String payee
                        && field.source() == Source.PAYEE_GOES_ON) {
                    values.put(field.source(), payee + " " + value);
                }
            } catch (FieldValue.Unreadable unreadable) {
                if (findings.size() < MOST_FINDINGS) {
                    findings.add(new Finding(line, field.name(), unreadable.sentence()));
                }
            }
        }
    }

    /** Null for what is not asked of a file, and for what is empty. */
    static @Nullable Object value(LayoutField field, String stands, Currency currency) throws FieldValue.Unreadable {
        if (field.source() == Source.CONSTANT || field.source() == Source.FILLER || stands.isBlank()) {
            return null;
        }
        FieldValue of = new FieldValue(field);
        return switch (field.source().form()) {
            case TEXT -> of.text(stands);
            case FIGURE, HASH -> of.figure(stands);
            case DAY -> of.day(stands);
            case AMOUNT -> of.amount(stands, currency);
        };
    }

    /** What stands in each field; null where the line is no such record. */
    private @Nullable List<String> cells(String line, LayoutRecord record) {
        List<String> cells = layout.shape() instanceof Shape.Delimited by
                ? Cells.of(line, by)
                : Cells.of(
                        line, record.fields().stream().map(LayoutField::width).toList());
        if (cells == null || cells.size() != record.fields().size()) {
            return null;
        }
        for (int i = 0; i < cells.size(); i++) {
            LayoutField field = record.fields().get(i);
            if (field.source() == Source.CONSTANT
                    && !cells.get(i).strip().equals(field.value().strip())) {
                return null;
            }
        }
        return cells;
    }

    private String decoded(byte[] content) {
        try {
            String text = layout.charset()
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .onUnmappableCharacter(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(content))
                    .toString();
            // a mark nobody announced does no harm
            return !text.isEmpty() && text.charAt(0) == MARK ? text.substring(1) : text;
        } catch (CharacterCodingException wrong) {
            throw refused(
                    "wrong-encoding",
                    "It is not written in " + layout.encoding()
                            + ", as this layout says. Choose another layout, or change its encoding.");
        }
    }

    /** Its records, whatever ends them; blank lines at the end are none. */
    private List<String> lines(String text) {
        List<String> lines = lines(layout, text);
        if (lines.isEmpty()) {
            throw refused("empty", "There is nothing in it.");
        }
        return lines;
    }

    static List<String> lines(Layout layout, String text) {
        String whole = text.endsWith(END_OF_TAPE) ? text.substring(0, text.length() - 1) : text;
        List<String> lines =
                layout.lineEnd() == Layout.LineEnd.NONE && !LINE.matcher(whole).find()
                        ? BankFile.blocks(layout, whole)
                        : new ArrayList<>(List.of(LINE.split(whole, -1)));
        while (!lines.isEmpty() && lines.get(lines.size() - 1).isBlank()) {
            lines.remove(lines.size() - 1);
        }
        return lines;
    }

    private Refusal noRecord(List<String> lines, int at, String what) {
        return refused(
                "no-such-record",
                "Line " + (at + 1) + ", “" + shown(lines.get(at)) + "”, is not " + what + ", “" + layout.name() + "”.");
    }

    static Refusal refused(String code, String why) {
        return Refusal.invalidField(
                "bank-file-" + code,
                "file",
                "Nothing was read of this file. " + why + " Ask the bank, or choose another layout.");
    }

    private static String shown(String line) {
        return line.length() > LONGEST_SHOWN ? line.substring(0, LONGEST_SHOWN) + "…" : line;
    }
}
