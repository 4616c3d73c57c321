package leveltally.core.bankfiles;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import leveltally.core.money.Money;

/** A file for the bank: its records and bytes, or everything that stands in the way of it. */
public record BankFile(List<Laid> records, byte[] bytes, List<Finding> findings) {
    private static final int MARK = '\uFEFF';

    /**
     * One check event, as the bank is told of it.
     *
     * @param printed the number with the letters before it
     * @param date the day of the issue, which is the check's, of the void, or on which the bank paid
     * @param reference how the bank calls the payment it asks about; empty for none
     * @param text why it is decided so; empty for none
     */
    public record Item(
            Kind kind,
            long number,
            String printed,
            Money amount,
            LocalDate checkDate,
            LocalDate date,
            String payee,
            String reference,
            String text) {

        /** An issue or a void. */
        public Item(
                Kind kind,
                long number,
                String printed,
                Money amount,
                LocalDate checkDate,
                LocalDate date,
                String payee) {
            this(kind, number, printed, amount, checkDate, date, payee, "", "");
        }

        /** What the bank is told: of a check, or what becomes of one it asks about. */
        public enum Kind {
            ISSUE,
            VOID,
            PAY,
            RETURN;

            /** Whether the check lives on: its amount counts among the issues. */
            boolean stands() {
                return this == ISSUE || this == PAY;
            }

            public String words() {
                return name().toLowerCase(java.util.Locale.ROOT);
            }
        }
    }

    /**
     * What the file as a whole is about.
     *
     * @param test a bank tries it, and does nothing of what it says
     */
    public record About(
            String routingNumber,
            String accountNumber,
            Currency currency,
            LocalDate fileDate,
            long serial,
            boolean test) {
        private static final int SHOWN = 4;

        /** A file that counts. */
        public About(String routingNumber, String accountNumber, Currency currency, LocalDate fileDate, long serial) {
            this(routingNumber, accountNumber, currency, fileDate, serial, false);
        }

        /** The same for a file a bank only tries. */
        public About tested() {
            return new About(routingNumber, accountNumber, currency, fileDate, serial, true);
        }

        /** The same with zeros in the account number but for its end: whatever a layout makes of it, no more is shown. */
        public About masked() {
            int hidden = Math.max(0, accountNumber.length() - SHOWN);
            return new About(
                    routingNumber,
                    "0".repeat(hidden) + accountNumber.substring(hidden),
                    currency,
                    fileDate,
                    serial,
                    test);
        }
    }

    /** A value that does not fit: {@code row} counts the events from 1, 0 is header or trailer. */
    public record Finding(int row, String field, String sentence) {}

    public BankFile {
        records = List.copyOf(records);
        findings = List.copyOf(findings);
    }

    /** Describes {@code items} by {@code layout}; bytes are empty when there are findings. */
    public static BankFile of(Layout layout, About about, List<Item> items) {
        return of(layout, about, Sums.of(items, about.currency()), items);
    }

    /** The same of the first items of a file whose trailer says what all of them come to. */
    public static BankFile of(Layout layout, About about, Sums sums, List<Item> items) {
        List<Finding> findings = new ArrayList<>();
        RecordWriter writer = new RecordWriter(layout, about, sums, findings::add);
        List<Laid> records = new ArrayList<>(writer.header());
        items.forEach(item -> records.addAll(writer.details(item)));
        records.addAll(writer.trailer());
        if (!findings.isEmpty()) {
            return new BankFile(records, new byte[0], findings);
        }
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try {
            begin(layout, bytes);
            for (Laid record : records) {
                write(layout, record, bytes);
            }
        } catch (IOException inMemory) {
            throw new UncheckedIOException(inMemory);
        }
        return new BankFile(records, bytes.toByteArray(), findings);
    }

    /** What stands before the first record. */
    public static void begin(Layout layout, OutputStream to) throws IOException {
        if (layout.byteOrderMark()) {
            to.write(Character.toString(MARK).getBytes(layout.charset()));
        }
    }

    /** One record with its end. */
    private static void write(Layout layout, Laid record, OutputStream to) throws IOException {
        to.write((record.text() + layout.lineEnd().characters()).getBytes(layout.charset()));
    }

    /** What the records say. */
    public List<String> texts() {
        return records.stream().map(Laid::text).toList();
    }

    /** Records of one length, with nothing between them. */
    static List<String> blocks(Layout layout, String text) {
        int length = layout.records().get(0).fields().stream()
                .mapToInt(LayoutField::width)
                .sum();
        List<String> records = new ArrayList<>();
        for (int from = 0; from < text.length(); from += length) {
            records.add(text.substring(from, Math.min(text.length(), from + length)));
        }
        return records;
    }
}
