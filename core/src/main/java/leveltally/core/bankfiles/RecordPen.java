package leveltally.core.bankfiles;

import java.nio.charset.Charset;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.function.BiFunction;
import leveltally.core.bankfiles.RecordWriter.Said;
import org.jspecify.annotations.Nullable;

/** Writes the records of one kind, field by field. */
final class RecordPen {
    private final LayoutRecord record;
    private final int kind;
    private final Charset charset;
    private final byte[] separator;
    private final byte[] end;
    private final Said[] fields;

    /**
     * @param kind which record of its layout it is, counted from 0
     * @param said what a field says of an event
     * @param problem told what does not fit
     */
    RecordPen(
            Layout layout,
            int kind,
            BiFunction<LayoutField, FieldPen, Said> said,
            BiConsumer<LayoutField, String> problem) {
        this.record = layout.records().get(kind);
        this.kind = kind;
        this.charset = layout.charset();
        this.separator = layout.shape() instanceof Shape.Delimited by
                ? String.valueOf(by.separator()).getBytes(charset)
                : new byte[0];
        this.end = layout.lineEnd().characters().getBytes(charset);
        boolean goesOn = record.fields().stream().anyMatch(field -> field.source() == Source.PAYEE_GOES_ON);
        List<Integer> before = new ArrayList<>();
        List<Said> all = new ArrayList<>();
        for (LayoutField field : record.fields()) {
            FieldPen pen = new FieldPen(field, layout.shape(), charset, sentence -> problem.accept(field, sentence));
            boolean payee = field.source() == Source.PAYEE || field.source() == Source.PAYEE_GOES_ON;
            all.add(goesOn && payee ? line(pen, List.copyOf(before)) : said.apply(field, pen));
            if (field.source() == Source.PAYEE) {
                before.add(field.width());
            }
        }
        this.fields = all.toArray(Said[]::new);
    }

    /** One of the fields over which a payee goes on; {@code before} are the widths of those that stand before it. */
    private static Said line(FieldPen pen, List<Integer> before) {
        LayoutField field = pen.field();
        return (item, to) -> {
            String rest = item == null ? "" : item.payee();
            for (int width : before) {
                rest = rest.substring(firstLine(rest, width).length()).strip();
            }
            pen.text(field.source() == Source.PAYEE ? firstLine(rest, field.width()) : rest, to);
        };
    }

    /** As many whole words as have room; a word longer than that is broken. */
    private static String firstLine(String payee, int width) {
        if (width == 0 || payee.length() <= width) {
            return payee;
        }
        int blank = payee.lastIndexOf(' ', width);
        return payee.substring(0, blank > 0 ? blank : width);
    }

    /** Whether there is such a record for an event; header and trailer are there once. */
    boolean tells(BankFile.@Nullable Item item) {
        return item == null || record.tells().holds(item);
    }

    /** Appends the record and its end. */
    void write(BankFile.@Nullable Item item, RecordBytes to) {
        for (int i = 0; i < fields.length; i++) {
            if (i > 0) {
                to.put(separator);
            }
            fields[i].write(item, to);
        }
        to.put(end);
    }

    /** The record without its end, and where each of its fields stands. */
    Laid laid(BankFile.@Nullable Item item, int row) {
        StringBuilder text = new StringBuilder();
        List<Laid.Span> spans = new ArrayList<>();
        RecordBytes bytes = new RecordBytes();
        for (Said field : fields) {
            if (!spans.isEmpty()) {
                text.append(new String(separator, charset));
            }
            int begin = text.length();
            bytes.clear();
            field.write(item, bytes);
            text.append(bytes.text(charset));
            spans.add(new Laid.Span(begin, text.length()));
        }
        return new Laid(text.toString(), kind, row, spans);
    }
}
