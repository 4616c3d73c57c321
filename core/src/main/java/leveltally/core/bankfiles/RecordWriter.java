package leveltally.core.bankfiles;

import java.nio.charset.CharsetEncoder;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** Writes the records of a file one after the other, whatever their number; what does not fit is told by row and field. */
public final class RecordWriter {
    private final Layout layout;
    private final BankFile.About about;
    private final Sums sums;
    private final Consumer<BankFile.Finding> findings;
    private final List<List<FieldPen>> pens = new ArrayList<>();
    /** In which records a payee goes on in another field. */
    private final List<Boolean> goOn = new ArrayList<>();

    private int row;

    /**
     * @param sums of all events that will be written
     * @param findings told what does not fit
     */
    public RecordWriter(Layout layout, BankFile.About about, Sums sums, Consumer<BankFile.Finding> findings) {
        this.layout = layout;
        this.about = about;
        this.sums = sums;
        this.findings = findings;
        CharsetEncoder encoder = layout.charset().newEncoder();
        for (LayoutRecord record : layout.records()) {
            goOn.add(record.fields().stream().anyMatch(field -> field.source() == Source.PAYEE_GOES_ON));
            pens.add(record.fields().stream()
                    .map(field -> new FieldPen(field, layout.shape(), encoder, sentence -> tell(field, sentence)))
                    .toList());
        }
    }

    public List<Laid> header() {
        return all(LayoutRecord.Place.HEADER, null);
    }

    /** The details of the next event. */
    public List<Laid> details(BankFile.Item item) {
        row++;
        return all(LayoutRecord.Place.DETAIL, item);
    }

    /** The same without saying where each field stands: their texts with their ends. */
    public void details(BankFile.Item item, StringBuilder to) {
        row++;
        for (int kind = 0; kind < layout.records().size(); kind++) {
            LayoutRecord record = layout.records().get(kind);
            if (record.place() == LayoutRecord.Place.DETAIL && record.tells().holds(item)) {
                write(kind, item, to, null);
                to.append(layout.lineEnd().characters());
            }
        }
    }

    /** The next event is the one of this row, counted from 1. */
    public void goTo(int next) {
        row = next - 1;
    }

    public List<Laid> trailer() {
        row = 0;
        return all(LayoutRecord.Place.TRAILER, null);
    }

    private List<Laid> all(LayoutRecord.Place place, BankFile.@Nullable Item item) {
        List<Laid> laid = new ArrayList<>();
        for (int kind = 0; kind < layout.records().size(); kind++) {
            LayoutRecord record = layout.records().get(kind);
            if (record.place() == place && (item == null || record.tells().holds(item))) {
                laid.add(laid(kind, item));
            }
        }
        return laid;
    }

    private Laid laid(int kind, BankFile.@Nullable Item item) {
        StringBuilder text = new StringBuilder();
        List<Laid.Span> spans = new ArrayList<>();
        write(kind, item, text, spans);
        return new Laid(text.toString(), kind, row, spans);
    }

    /** @param spans takes where each field stands; null where nobody asks */
    private void write(int kind, BankFile.@Nullable Item item, StringBuilder to, @Nullable List<Laid.Span> spans) {
        int begin = to.length();
        List<FieldPen> fields = pens.get(kind);
        String payee = item == null ? "" : item.payee();
        for (int i = 0; i < fields.size(); i++) {
            FieldPen pen = fields.get(i);
            if (i > 0 && layout.shape() instanceof Shape.Delimited by) {
                to.append(by.separator());
            }
            int from = to.length() - begin;
            if (pen.field().source() == Source.PAYEE && goOn.get(kind)) {
                String line = firstLine(payee, pen.field().width());
                payee = payee.substring(line.length()).strip();
                pen.text(line, to);
            } else if (pen.field().source() == Source.PAYEE || pen.field().source() == Source.PAYEE_GOES_ON) {
                pen.text(payee, to);
            } else {
                write(pen, item, to);
            }
            if (spans != null) {
                spans.add(new Laid.Span(from, to.length() - begin));
            }
        }
    }

    /** As many whole words as have room; a word longer than that is broken. */
    private static String firstLine(String payee, int width) {
        if (width == 0 || payee.length() <= width) {
            return payee;
        }
        int blank = payee.lastIndexOf(' ', width);
        return payee.substring(0, blank > 0 ? blank : width);
    }

    private void write(FieldPen pen, BankFile.@Nullable Item item, StringBuilder to) {
        LayoutField field = pen.field();
        switch (field.source().form()) {
            case AMOUNT -> pen.amount(amount(field.source(), item), to);
            case HASH -> pen.hash(hash(field.source()), to);
            case DAY -> pen.day(day(field.source(), item), to);
            case FIGURE -> pen.figure(figure(field.source(), item), to);
            case TEXT -> {
                if (field.source() == Source.NUMBER_AS_PRINTED) {
                    pen.once(of(item).printed(), to);
                } else {
                    pen.text(value(field, item), to);
                }
            }
        }
    }

    private void tell(LayoutField field, String sentence) {
        findings.accept(new BankFile.Finding(row, field.name(), sentence));
    }

    private String value(LayoutField field, BankFile.@Nullable Item item) {
        return switch (field.source()) {
            case CONSTANT -> field.value();
            case FILLER -> "";
            case KIND -> of(item).kind().name();
            case NUMBER_AS_PRINTED -> of(item).printed();
            case REFERENCE -> of(item).reference();
            case TEXT -> of(item).text();
            case ACCOUNT_NUMBER -> about.accountNumber();
            case ROUTING_NUMBER -> about.routingNumber();
            case LIVE_OR_TEST -> about.test() ? "TEST" : "LIVE";
            case CURRENCY -> about.currency().getCurrencyCode();
            default -> throw new IllegalArgumentException(field.source() + " is no text");
        };
    }

    private long figure(Source source, BankFile.@Nullable Item item) {
        return switch (source) {
            case NUMBER -> of(item).number();
            case ROW -> row;
            case FILE_SERIAL -> about.serial();
            case RECORD_COUNT -> recordCount();
            case COUNT -> sums.count();
            case ISSUE_COUNT -> sums.issues();
            case VOID_COUNT -> sums.voids();
            default -> throw new IllegalArgumentException(source + " is no figure");
        };
    }

    private long recordCount() {
        long count = 0;
        for (LayoutRecord record : layout.records()) {
            count += record.place() != LayoutRecord.Place.DETAIL
                    ? 1
                    : switch (record.tells()) {
                        case BOTH -> sums.count();
                        case ISSUES -> sums.issues();
                        case VOIDS -> sums.voids();
                    };
        }
        return count;
    }

    private leveltally.core.money.Money amount(Source source, BankFile.@Nullable Item item) {
        return switch (source) {
            case AMOUNT -> of(item).amount();
            case TOTAL -> sums.issued().plus(sums.voided());
            case ISSUE_TOTAL -> sums.issued();
            case VOID_TOTAL -> sums.voided();
            default -> throw new IllegalArgumentException(source + " is no amount");
        };
    }

    private long hash(Source source) {
        return switch (source) {
            case HASH -> Math.addExact(sums.issueHash(), sums.voidHash());
            case ISSUE_HASH -> sums.issueHash();
            case VOID_HASH -> sums.voidHash();
            default -> throw new IllegalArgumentException(source + " is no sum of numbers");
        };
    }

    private java.time.LocalDate day(Source source, BankFile.@Nullable Item item) {
        return switch (source) {
            case CHECK_DATE -> of(item).checkDate();
            case EVENT_DATE -> of(item).date();
            case FILE_DATE -> about.fileDate();
            default -> throw new IllegalArgumentException(source + " is no day");
        };
    }

    private static BankFile.Item of(BankFile.@Nullable Item item) {
        if (item == null) {
            throw new IllegalArgumentException("layout: header and trailer have no check to speak of");
        }
        return item;
    }
}
