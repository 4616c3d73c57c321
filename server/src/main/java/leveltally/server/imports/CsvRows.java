package leveltally.server.imports;

import java.io.BufferedInputStream;
import java.io.FilterReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.PushbackReader;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.function.BiConsumer;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;

/** Streams the records of a CSV file: UTF-8, comma, semicolon or tab, a header line first. */
final class CsvRows {
    private static final int LONGEST_LINE = 60_000;
    private static final int MOST_COLUMNS = 200;
    private static final int LONGEST_RECORD = 200_000;
    private static final int LONGEST_CELL = 10_000;
    private static final int MOST_ROWS = 2_000_000;

    private CsvRows() {}

    /**
     * @param header takes the header line and says whether to go on
     * @param rows takes line number (the header is line 1) and cells
     * @throws Unreadable when the file is no such CSV, with the line
     */
    static void read(
            InputStream file,
            java.util.function.Predicate<List<String>> header,
            BiConsumer<Integer, List<String>> rows) {
        var decoder = StandardCharsets.UTF_8
                .newDecoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(CodingErrorAction.REPORT);
        Lines lines = new Lines(new InputStreamReader(new BufferedInputStream(file), decoder));
        try (PushbackReader reader = new PushbackReader(lines, LONGEST_LINE + 8)) {
            char delimiter = delimiter(reader);
            CSVFormat format = CSVFormat.RFC4180
                    .builder()
                    .setDelimiter(delimiter)
                    .setIgnoreEmptyLines(true)
                    .get();
            CSVParser parser =
                    CSVParser.builder().setReader(reader).setFormat(format).get();
            boolean first = true;
            for (CSVRecord record : parser) {
                lines.record = 0;
                if (parser.getRecordNumber() > MOST_ROWS) {
                    throw new Unreadable("The file has more than 2,000,000 rows. Send it in pieces.");
                }
                if (record.stream().anyMatch(cell -> cell.length() > LONGEST_CELL)) {
                    throw new Unreadable("Line " + parser.getCurrentLineNumber()
                            + " has a cell of more than 10,000 characters: a quotation mark may not be closed there.");
                }
                if (record.size() > MOST_COLUMNS) {
                    throw new Unreadable("Line " + parser.getCurrentLineNumber() + " has more than " + MOST_COLUMNS
                            + " columns, so this is hardly the file you mean.");
                }
                if (first) {
                    first = false;
                    if (!header.test(record.toList())) {
                        return;
                    }
                } else {
                    rows.accept((int) parser.getCurrentLineNumber(), record.toList());
                }
            }
            if (first) {
                throw new Unreadable("The file is empty. It needs a line with the names of the columns first.");
            }
        } catch (CharacterCodingException wrongEncoding) {
            throw notUtf8(lines);
        } catch (UncheckedIOException | IOException broken) {
            for (Throwable cause = broken; cause != null; cause = cause.getCause()) {
                if (cause instanceof CharacterCodingException) {
                    throw notUtf8(lines);
                }
                if (cause instanceof Unreadable unreadable) {
                    throw unreadable;
                }
            }
            throw new Unreadable("The file could not be read near line " + lines.line
                    + ": a quotation mark is not closed or stands in the middle of a cell.");
        }
    }

    private static Unreadable notUtf8(Lines lines) {
        return new Unreadable("The file is not written in UTF-8: line " + lines.line
                + " or one soon after has a character that is none. Save it as “CSV UTF-8” and send it again.");
    }

    /** What separates the names in the header line; a byte order mark is passed over. */
    private static char delimiter(PushbackReader reader) throws IOException {
        StringBuilder head = new StringBuilder();
        int c = reader.read();
        if (c == '\ufeff') {
            c = reader.read();
        }
        while (c >= 0 && c != '\n' && head.length() < LONGEST_LINE) {
            if (c == 0) {
                throw new Unreadable("This is no text file. Save the table as “CSV UTF-8” and send that.");
            }
            head.append((char) c);
            c = reader.read();
        }
        if (c >= 0) {
            reader.unread(c);
        }
        reader.unread(head.toString().toCharArray());
        String line = head.toString();
        for (char one : new char[] {'\t', ';'}) {
            if (line.indexOf(one) >= 0 && line.indexOf(',') < 0) {
                return one;
            }
        }
        return ',';
    }

    /** Counts lines, and refuses one that no table has before it fills the memory. */
    private static final class Lines extends FilterReader {
        private int line = 1;
        private int length;
        private int record;

        Lines(Reader in) {
            super(in);
        }

        @Override
        public int read() throws IOException {
            int c = super.read();
            count((char) c);
            return c;
        }

        @Override
        public int read(char[] buffer, int from, int most) throws IOException {
            int got = super.read(buffer, from, most);
            for (int i = from; i < from + got; i++) {
                count(buffer[i]);
            }
            return got;
        }

        private void count(char c) {
            if (++record > LONGEST_RECORD) {
                throw new Unreadable("A cell does not end near line " + line
                        + ": a quotation mark is opened before it and not closed. Close it and send the file again.");
            }
            if (c == '\n') {
                line++;
                length = 0;
            } else if (++length > LONGEST_LINE) {
                throw new Unreadable("Line " + line + " is longer than 60,000 characters, so this is no table of "
                        + "vendors or invoices. Check what was saved and send it again.");
            }
        }
    }
}
