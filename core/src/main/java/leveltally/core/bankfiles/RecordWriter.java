package leveltally.core.bankfiles;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.ToLongFunction;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/** Writes the records of a file one after the other, whatever their number; what does not fit is told by row and field. */
public final class RecordWriter {
    private final BankFile.About about;
    private final Sums sums;
    private final Consumer<BankFile.Finding> findings;
    private final long records;
    private final List<RecordPen> headers;
    private final List<RecordPen> details;
    private final List<RecordPen> trailers;

    private int row;

    /**
     * @param sums of all events that will be written
     * @param findings told what does not fit
     */
    public RecordWriter(Layout layout, BankFile.About about, Sums sums, Consumer<BankFile.Finding> findings) {
        this.about = about;
        this.sums = sums;
        this.findings = findings;
        this.records = layout.records().stream()
                .mapToLong(record -> times(record, sums))
                .sum();
        this.headers = pens(layout, LayoutRecord.Place.HEADER);
        this.details = pens(layout, LayoutRecord.Place.DETAIL);
        this.trailers = pens(layout, LayoutRecord.Place.TRAILER);
    }

    private static long times(LayoutRecord record, Sums sums) {
        return record.place() != LayoutRecord.Place.DETAIL
                ? 1
                : switch (record.tells()) {
                    case BOTH -> sums.count();
                    case ISSUES -> sums.issues();
                    case VOIDS -> sums.voids();
                };
    }

    private List<RecordPen> pens(Layout layout, LayoutRecord.Place place) {
        List<RecordPen> pens = new ArrayList<>();
        for (int kind = 0; kind < layout.records().size(); kind++) {
            if (layout.records().get(kind).place() == place) {
                pens.add(new RecordPen(layout, kind, this::said, this::tell));
            }
        }
        return List.copyOf(pens);
    }

    public List<Laid> header() {
        return laid(headers, null);
    }

    /** The details of the next event. */
    public List<Laid> details(BankFile.Item item) {
        row++;
        return laid(details, item);
    }

    public List<Laid> trailer() {
        row = 0;
        return laid(trailers, null);
    }

    private List<Laid> laid(List<RecordPen> pens, BankFile.@Nullable Item item) {
        return pens.stream()
                .filter(pen -> pen.tells(item))
                .map(pen -> pen.laid(item, row))
                .toList();
    }

    /** As bytes with their ends, like the others below: nothing is said of where each field stands. */
    public void header(RecordBytes to) {
        write(headers, null, to);
    }

    /** The details of the next event. */
    public void details(BankFile.Item item, RecordBytes to) {
        row++;
        write(details, item, to);
    }

    public void trailer(RecordBytes to) {
        row = 0;
        write(trailers, null, to);
    }

    private static void write(List<RecordPen> pens, BankFile.@Nullable Item item, RecordBytes to) {
        for (RecordPen pen : pens) {
            if (pen.tells(item)) {
                pen.write(item, to);
            }
        }
    }

    /** The next event is the one of this row, counted from 1. */
    public void goTo(int next) {
        row = next - 1;
    }

    private void tell(LayoutField field, String sentence) {
        findings.accept(new BankFile.Finding(row, field.name(), sentence));
    }

    /** What a field says of an event, decided once; header and trailer have none to speak of. */
    private Said said(LayoutField field, FieldPen pen) {
        return switch (field.source().form()) {
            case AMOUNT -> {
                Function<BankFile.@Nullable Item, Money> amount = amount(field.source());
                yield (item, to) -> pen.amount(amount.apply(item), to);
            }
            case HASH -> {
                long hash = hash(field.source());
                yield (item, to) -> pen.hash(hash, to);
            }
            case DAY -> {
                Function<BankFile.@Nullable Item, LocalDate> day = day(field.source());
                yield (item, to) -> pen.day(day.apply(item), to);
            }
            case FIGURE -> {
                ToLongFunction<BankFile.@Nullable Item> figure = figure(field.source());
                yield (item, to) -> pen.figure(figure.applyAsLong(item), to);
            }
            case TEXT -> {
                Function<BankFile.@Nullable Item, String> text = text(field);
                yield field.source() == Source.NUMBER_AS_PRINTED
                        ? (item, to) -> pen.once(text.apply(item), to)
                        : (item, to) -> pen.text(text.apply(item), to);
            }
        };
    }

    /** What is written of an event into a field. */
    interface Said {
        void write(BankFile.@Nullable Item item, RecordBytes to);
    }

    private Function<BankFile.@Nullable Item, String> text(LayoutField field) {
        return switch (field.source()) {
            case KIND -> item -> of(item).kind().name();
            case NUMBER_AS_PRINTED -> item -> of(item).printed();
            case REFERENCE -> item -> of(item).reference();
            case TEXT -> item -> of(item).text();
            case PAYEE, PAYEE_GOES_ON -> item -> of(item).payee();
            case CONSTANT -> always(field.value());
            case FILLER -> always("");
            case ACCOUNT_NUMBER -> always(about.accountNumber());
            case ROUTING_NUMBER -> always(about.routingNumber());
            case LIVE_OR_TEST -> always(about.test() ? "TEST" : "LIVE");
            case CURRENCY -> always(about.currency().getCurrencyCode());
            default -> throw new IllegalArgumentException(field.source() + " is no text");
        };
    }

    private static <T> Function<BankFile.@Nullable Item, T> always(T value) {
        return item -> value;
    }

    private ToLongFunction<BankFile.@Nullable Item> figure(Source source) {
        return switch (source) {
            case NUMBER -> item -> of(item).number();
            case ROW -> item -> row;
            case FILE_SERIAL -> item -> about.serial();
            case RECORD_COUNT -> item -> records;
            case COUNT -> item -> sums.count();
            case ISSUE_COUNT -> item -> sums.issues();
            case VOID_COUNT -> item -> sums.voids();
            default -> throw new IllegalArgumentException(source + " is no figure");
        };
    }

    private Function<BankFile.@Nullable Item, Money> amount(Source source) {
        return switch (source) {
            case AMOUNT -> item -> of(item).amount();
            case TOTAL -> always(sums.issued().plus(sums.voided()));
            case ISSUE_TOTAL -> always(sums.issued());
            case VOID_TOTAL -> always(sums.voided());
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

    private Function<BankFile.@Nullable Item, LocalDate> day(Source source) {
        return switch (source) {
            case CHECK_DATE -> item -> of(item).checkDate();
            case EVENT_DATE -> item -> of(item).date();
            case FILE_DATE -> always(about.fileDate());
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
