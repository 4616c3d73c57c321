package leveltally.core.electronic;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.Reader;
import java.nio.charset.StandardCharsets;
import java.util.Currency;
import java.util.function.Consumer;
import leveltally.core.Refusal;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * Reads what a bank sends back of ACH entries, record by record: returns (addenda of type 99) and notifications of change (98). A
 * file is read whole or not at all: what its controls say must be what its records come to.
 */
public final class AchNoticeReader {
    private static final Currency USD = Currency.getInstance("USD");
    private static final String NINES = "9".repeat(AchRecord.LENGTH);

    private final Reader text;
    private final Consumer<AchNotice> notices;
    private int at;
    private AchTotals file = AchTotals.NONE;
    private AchTotals batch = AchTotals.NONE;
    private boolean inBatch;
    private int batches;
    private @Nullable String entry;

    private AchNoticeReader(InputStream content, Consumer<AchNotice> notices) {
        this.text = new BufferedReader(new InputStreamReader(content, StandardCharsets.ISO_8859_1), 1 << 16);
        this.notices = notices;
    }

    /**
     * @param notices told each as it stands in the file; what was told is forgotten where the file is refused
     * @return what the entries come to
     * @throws Refusal naming the record that is none, or does not agree
     */
    public static AchTotals read(InputStream content, Consumer<AchNotice> notices) throws IOException {
        return new AchNoticeReader(content, notices).read();
    }

    private AchTotals read() throws IOException {
        String first = next();
        if (first == null || !first.startsWith("101")) {
            throw refused("does not begin an ACH file: it begins with 101");
        }
        for (String record = next(); record != null; record = next()) {
            switch (record.charAt(0)) {
                case '5' -> begin();
                case '6' -> entry(record);
                case '7' -> addendum(record);
                case '8' -> end(record);
                case '9' -> {
                    finish(record);
                    return file;
                }
                default -> throw refused("is none: records begin with 5, 6, 7, 8 or 9");
            }
        }
        throw refused("is the last, and the control of the file is missing: it was cut off");
    }

    private void begin() {
        if (inBatch) {
            throw refused("begins a batch before the one before it ended");
        }
        inBatch = true;
        batches++;
        batch = AchTotals.NONE;
    }

    private void entry(String record) {
        if (!inBatch) {
            throw refused("is an entry outside a batch");
        }
        leftAlone();
        entry = record;
        long cents = figure(record, 30, 39);
        boolean debit = record.charAt(2) >= '5';
        batch = batch.with(new AchTotals(1, figure(record, 4, 11), debit ? cents : 0, debit ? 0 : cents));
    }

    /** An entry without an addendum says nothing of ours. */
    private void leftAlone() {
        if (entry != null) {
            throw refused("follows an entry that does not say what it returns or changes");
        }
    }

    private void addendum(String record) {
        String of = entry;
        if (of == null) {
            throw refused("says something of no entry");
        }
        batch = batch.with(new AchTotals(1, 0, 0, 0));
        entry = null;
        String trace = part(record, 7, 21);
        if (!trace.matches("\\d{15}")) {
            throw refused("names no entry of ours: its trace number has 15 digits");
        }
        String code = part(record, 4, 6);
        switch (part(record, 2, 3)) {
            case "99" ->
                notices.accept(new AchNotice.Returned(
                        code, trace, Money.ofMinor(figure(of, 30, 39), USD), part(of, 55, 76), part(record, 36, 79)));
            case "98" -> notices.accept(changed(code, trace, record.substring(35, 64)));
            default -> throw refused("is neither a return nor a notification of change");
        }
    }

    /** Where in the corrected data what stands is said by the code. */
    private static AchNotice.Changed changed(String code, String trace, String corrected) {
        String routing = null;
        String account = null;
        String kind = null;
        switch (code) {
            case "C01" -> account = part(corrected, 1, 17);
            case "C02" -> routing = part(corrected, 1, 9);
            case "C03" -> {
                routing = part(corrected, 1, 9);
                account = part(corrected, 13, 29);
            }
            case "C05" -> kind = part(corrected, 1, 2);
            case "C06" -> {
                account = part(corrected, 1, 17);
                kind = part(corrected, 21, 22);
            }
            case "C07" -> {
                routing = part(corrected, 1, 9);
                account = part(corrected, 10, 26);
                kind = part(corrected, 27, 28);
            }
            default -> {
                // a name or a number of ours: people read it
            }
        }
        return new AchNotice.Changed(
                code, trace, routing, account, kind == null ? null : kind.startsWith("3"), corrected.strip());
    }

    private void end(String record) {
        leftAlone();
        if (!inBatch) {
            throw refused("ends a batch that did not begin");
        }
        agrees(record, batch, 5, 10, 11, 20, 21, 32, 33, 44);
        file = file.with(batch);
        inBatch = false;
    }

    private void finish(String record) throws IOException {
        if (inBatch) {
            throw refused("ends the file before its batch ended");
        }
        if (figure(record, 2, 7) != batches) {
            throw refused("says of batches " + figure(record, 2, 7) + ", there are " + batches);
        }
        agrees(record, file, 14, 21, 22, 31, 32, 43, 44, 55);
        for (String rest = next(); rest != null; rest = next()) {
            if (!rest.equals(NINES)) {
                throw refused("stands behind the end of the file");
            }
        }
    }

    /** @param places from and to, of the count, the hash, the debits and the credits */
    private void agrees(String record, AchTotals of, int... places) {
        long[] come = {of.count(), of.hashWritten(), of.debit(), of.credit()};
        String[] names = {"entries and addenda", "the sum of routing numbers", "debits", "credits"};
        for (int i = 0; i < come.length; i++) {
            long says = figure(record, places[2 * i], places[2 * i + 1]);
            if (says != come[i]) {
                throw refused("says of " + names[i] + " " + says + ", the records come to " + come[i]);
            }
        }
    }

    private long figure(String record, int from, int to) {
        String digits = record.substring(from - 1, to);
        if (!digits.matches("\\d+")) {
            throw refused("has no figure in positions " + from + " to " + to);
        }
        return Long.parseLong(digits);
    }

    private static String part(String record, int from, int to) {
        return record.substring(from - 1, to).strip();
    }

    /** The next 94 characters, whatever ends lines, also nothing; null at the end. */
    private @Nullable String next() throws IOException {
        StringBuilder record = new StringBuilder(AchRecord.LENGTH);
        for (int one = text.read(); one >= 0; one = text.read()) {
            if (one == '\r' || one == '\n' || one == '\u001a') {
                if (record.isEmpty()) {
                    continue;
                }
                break;
            }
            record.append((char) one);
            if (record.length() == AchRecord.LENGTH) {
                break;
            }
        }
        if (record.isEmpty()) {
            return null;
        }
        at++;
        // blanks at the end get lost on the way
        record.append(" ".repeat(AchRecord.LENGTH - record.length()));
        return record.toString();
    }

    private Refusal refused(String why) {
        return Refusal.invalid(
                "ach-file", "Record " + at + " " + why + ". Nothing of the file was read; ask the bank for it again.");
    }
}
