package leveltally.core.bankfiles;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.Currency;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A line of a bank's own sample laid over a layout: which record it is taken for, where each field stands in it, and what the
 * layout says otherwise.
 *
 * @param kind the record of the layout, counted from 0; -1 where the layout has none for it
 */
public record SampleLine(int line, String text, int kind, List<Laid.Span> spans, List<Differs> differences) {
    private static final int MOST_LINES = 200;

    public SampleLine {
        spans = List.copyOf(spans);
        differences = List.copyOf(differences);
    }

    /** @param field counted from 1; 0 for the record */
    public record Differs(int field, String name, String sentence) {}

    /** Lays a sample, the first of its lines, over a layout: headers first, trailers last, each other line over the detail it fits best. */
    public static List<SampleLine> over(Layout layout, Currency currency, String sample) {
        List<String> lines = RecordReader.lines(layout, sample);
        List<Integer> headers = kinds(layout, LayoutRecord.Place.HEADER);
        List<Integer> trailers = kinds(layout, LayoutRecord.Place.TRAILER);
        List<Integer> details = kinds(layout, LayoutRecord.Place.DETAIL);
        List<SampleLine> laid = new ArrayList<>();
        for (int i = 0; i < lines.size() && i < MOST_LINES; i++) {
            int fromEnd = lines.size() - i;
            List<Integer> may = i < headers.size()
                    ? List.of(headers.get(i))
                    : fromEnd <= trailers.size() ? List.of(trailers.get(trailers.size() - fromEnd)) : details;
            int line = i + 1;
            String text = lines.get(i);
            laid.add(may.stream()
                    .map(kind -> over(layout, currency, kind, line, text))
                    .min(Comparator.comparingInt(one -> one.differences().size()))
                    .orElseGet(() -> new SampleLine(
                            line,
                            text,
                            -1,
                            List.of(),
                            List.of(new Differs(0, "", "The layout has no record for this line.")))));
        }
        return laid;
    }

    private static List<Integer> kinds(Layout layout, LayoutRecord.Place place) {
        List<Integer> kinds = new ArrayList<>();
        for (int i = 0; i < layout.records().size(); i++) {
            if (layout.records().get(i).place() == place) {
                kinds.add(i);
            }
        }
        return kinds;
    }

    private static SampleLine over(Layout layout, Currency currency, int kind, int line, String text) {
        LayoutRecord record = layout.records().get(kind);
        List<Laid.Span> spans =
                layout.shape() instanceof Shape.Delimited by ? separated(text, by) : columns(text, record);
        List<Differs> differences = new ArrayList<>();
        String length = length(layout, record, text, spans);
        if (length != null) {
            differences.add(new Differs(0, "", length));
        }
        List<String> cells = cells(layout, text, spans);
        for (int i = 0; i < record.fields().size() && i < cells.size(); i++) {
            LayoutField field = record.fields().get(i);
            String differs = differs(field, cells.get(i), currency);
            if (differs != null) {
                differences.add(new Differs(i + 1, field.name(), differs));
            }
        }
        return new SampleLine(line, text, kind, spans, differences);
    }

    private static @Nullable String length(Layout layout, LayoutRecord record, String text, List<Laid.Span> spans) {
        if (layout.shape() instanceof Shape.Delimited) {
            return spans.size() == record.fields().size()
                    ? null
                    : "It has " + spans.size() + " fields, the "
                            + record.place().words() + " of the layout "
                            + record.fields().size() + ".";
        }
        int width = record.fields().stream().mapToInt(LayoutField::width).sum();
        boolean fits = text.length() <= width
                ? mayEnd(record, text.length())
                : text.substring(width).isBlank();
        return fits
                ? null
                : "It has " + text.length() + " characters, the "
                        + record.place().words() + " of the layout " + width + ".";
    }

    /** Blanks at the end get lost on the way; whatever is no blank does not. */
    private static boolean mayEnd(LayoutRecord record, int at) {
        int end = 0;
        for (LayoutField field : record.fields()) {
            end += field.width();
            boolean blanks =
                    field.source() == Source.FILLER || field.align() == LayoutField.Align.LEFT && field.fill() == ' ';
            if (end > at && !blanks) {
                return false;
            }
        }
        return true;
    }

    private static @Nullable String differs(LayoutField field, String stands, Currency currency) {
        if (field.source() == Source.CONSTANT) {
            return stands.strip().equals(field.value().strip())
                    ? null
                    : "Here stands “" + stands + "”, the layout says “" + field.value() + "”.";
        }
        if (field.source() == Source.FILLER) {
            return stands.isBlank() ? null : "Here stands “" + stands + "”, the layout leaves it free.";
        }
        try {
            RecordReader.value(field, stands, currency);
            return null;
        } catch (FieldValue.Unreadable unreadable) {
            return unreadable.sentence();
        }
    }

    private static List<Laid.Span> columns(String text, LayoutRecord record) {
        List<Laid.Span> spans = new ArrayList<>();
        int at = 0;
        for (LayoutField field : record.fields()) {
            int end = Math.min(text.length(), at + field.width());
            spans.add(new Laid.Span(Math.min(at, text.length()), end));
            at += field.width();
        }
        return spans;
    }

    /** Where each field stands between the separators, with its quotes. */
    private static List<Laid.Span> separated(String text, Shape.Delimited by) {
        List<Laid.Span> spans = new ArrayList<>();
        boolean quoted = false;
        int from = 0;
        for (int i = 0; i < text.length(); i++) {
            char one = text.charAt(i);
            if (by.escape() == Shape.Escape.BACKSLASH && one == '\\') {
                i++;
            } else if (by.quoting() != Shape.Quoting.NEVER && one == by.quote()) {
                quoted = !quoted;
            } else if (one == by.separator() && !quoted) {
                spans.add(new Laid.Span(from, i));
                from = i + 1;
            }
        }
        spans.add(new Laid.Span(from, text.length()));
        return spans;
    }

    private static List<String> cells(Layout layout, String text, List<Laid.Span> spans) {
        if (layout.shape() instanceof Shape.Delimited by) {
            List<String> cells = Cells.of(text, by);
            if (cells != null && cells.size() == spans.size()) {
                return cells;
            }
        }
        return spans.stream()
                .map(span -> text.substring(span.from(), span.to()))
                .toList();
    }
}
