package leveltally.core.bankfiles;

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
    private final java.nio.charset.CharsetEncoder encoder;
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
        this.encoder = layout.charset().newEncoder();
    }

    public List<Laid> header() {
        return all(LayoutRecord.Place.HEADER, null);
    }

    /** The details of the next event. */
    public List<Laid> details(BankFile.Item item) {
        row++;
        return all(LayoutRecord.Place.DETAIL, item);
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
                laid.add(laid(kind, record, item));
            }
        }
        return laid;
    }

    private Laid laid(int kind, LayoutRecord record, BankFile.@Nullable Item item) {
        StringBuilder text = new StringBuilder();
        List<Laid.Span> spans = new ArrayList<>();
        String payee = item == null ? "" : item.payee();
        for (LayoutField field : record.fields()) {
            if (layout.shape() instanceof Shape.Delimited by && !spans.isEmpty()) {
                text.append(by.separator());
            }
            int from = text.length();
            if (field.source() == Source.PAYEE || field.source() == Source.PAYEE_GOES_ON) {
                boolean more = record.fields().stream().anyMatch(one -> one.source() == Source.PAYEE_GOES_ON);
                String line = more && field.source() == Source.PAYEE ? firstLine(payee, field.width()) : payee;
                payee = payee.substring(line.length()).strip();
                text.append(put(field, line, ""));
            } else {
                text.append(put(field, item));
            }
            spans.add(new Laid.Span(from, text.length()));
        }
        return new Laid(text.toString(), kind, row, spans);
    }

    /** As many whole words as have room; a word longer than that is broken. */
    private static String firstLine(String payee, int width) {
        if (width == 0 || payee.length() <= width) {
            return payee;
        }
        int blank = payee.lastIndexOf(' ', width);
        return payee.substring(0, blank > 0 ? blank : width);
    }

    private String put(LayoutField field, BankFile.@Nullable Item item) {
        FieldText text = new FieldText(field, layout.shape(), sentence -> tell(field, sentence));
        return switch (field.source().form()) {
            case AMOUNT -> {
                var amount = amount(field.source(), item);
                yield put(field, text.amount(amount), text.sign(amount));
            }
            case HASH -> put(field, text.hash(hash(field.source())), "");
            case DAY -> put(field, text.day(day(field.source(), item)), "");
            case TEXT, FIGURE -> put(field, value(field, item), "");
        };
    }

    private String put(LayoutField field, String value, String sign) {
        FieldText text = new FieldText(field, layout.shape(), sentence -> tell(field, sentence));
        String placed = text.placed(text.written(value), sign);
        checkCharacters(field, placed);
        return layout.shape() instanceof Shape.Delimited by ? delimited(field, placed, by) : placed;
    }

    private String delimited(LayoutField field, String value, Shape.Delimited by) {
        String quote = String.valueOf(by.quote());
        String separator = String.valueOf(by.separator());
        boolean special = value.contains(separator) || value.contains(quote);
        boolean quoted = switch (by.quoting()) {
            case NEVER -> false;
            case WHERE_NEEDED -> special;
            case TEXTS -> field.source().form() == Source.Form.TEXT;
            case ALWAYS -> true;
        };
        boolean inTheWay = quoted ? value.contains(quote) : special;
        if (inTheWay && (by.escape() == Shape.Escape.NONE || !quoted && by.escape() == Shape.Escape.DOUBLED)) {
            tell(
                    field,
                    "“" + value
                            + "” holds a character that separates or quotes fields, and the layout has no way to write"
                            + " it. Quote it, or name what replaces it.");
        }
        String text = value;
        if (by.escape() == Shape.Escape.BACKSLASH) {
            text = text.replace("\\", "\\\\").replace(quote, "\\" + quote);
            text = quoted ? text : text.replace(separator, "\\" + separator);
        } else if (quoted && by.escape() == Shape.Escape.DOUBLED) {
            text = text.replace(quote, quote + quote);
        }
        return quoted ? quote + text + quote : text;
    }

    private void checkCharacters(LayoutField field, String value) {
        if (!encoder.canEncode(value)) {
            value.codePoints()
                    .filter(c -> !encoder.canEncode(Character.toString(c)))
                    .findFirst()
                    .ifPresent(c -> tell(
                            field,
                            "“" + Character.toString(c) + "” in “" + value.strip() + "” is not in " + layout.encoding()
                                    + ". Name what replaces it, or change the encoding."));
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
            case NUMBER -> String.valueOf(of(item).number());
            case NUMBER_AS_PRINTED -> of(item).printed();
            case REFERENCE -> of(item).reference();
            case TEXT -> of(item).text();
            case ROW -> String.valueOf(row);
            case ACCOUNT_NUMBER -> about.accountNumber();
            case ROUTING_NUMBER -> about.routingNumber();
            case CURRENCY -> about.currency().getCurrencyCode();
            case FILE_SERIAL -> String.valueOf(about.serial());
            case RECORD_COUNT -> String.valueOf(recordCount());
            case COUNT -> String.valueOf(sums.count());
            case ISSUE_COUNT -> String.valueOf(sums.issues());
            case VOID_COUNT -> String.valueOf(sums.voids());
            default -> throw new IllegalArgumentException(field.source() + " is no text and no figure");
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
