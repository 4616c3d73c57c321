package leveltally.core.bankfiles;

import java.nio.charset.Charset;
import java.util.List;

/**
 * A bank's file, described: what each record holds, field by field. A description is data, so that a bank's wish is
 * answered by editing it, not by a developer.
 *
 * @param use what the file is for
 * @param encoding a charset name
 * @param byteOrderMark written first, where the encoding has one
 * @param lineEnd what ends each record, the last one too
 * @param shape how fields stand side by side
 * @param fileName a pattern, see {@link FileName}
 * @param records in the order in which they are written; those of the details once for each event, one after the other
 */
public record Layout(
        String name,
        Use use,
        String encoding,
        boolean byteOrderMark,
        LineEnd lineEnd,
        Shape shape,
        String fileName,
        List<LayoutRecord> records) {
    public Layout {
        records = List.copyOf(records);
    }

    /** A file that tells the bank of checks. */
    public Layout(
            String name,
            String encoding,
            boolean byteOrderMark,
            LineEnd lineEnd,
            Shape shape,
            String fileName,
            List<LayoutRecord> records) {
        this(name, Use.POSITIVE_PAY, encoding, byteOrderMark, lineEnd, shape, fileName, records);
    }

    /** What a file is for; some are written, the others are what a bank writes and we read. */
    public enum Use {
        POSITIVE_PAY("positive pay"),
        /** Which of the checks a bank asks about are paid, and which returned. */
        DECISIONS("decisions"),
        /** What a bank says of a file it was given. */
        ANSWER("answers"),
        /** The checks a bank paid. */
        PAID_CHECKS("paid checks"),
        /** What moved on an account, with its balances where the file has them. */
        STATEMENT("statement");

        private final String words;

        Use(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** Whether a bank writes it. */
        public boolean isRead() {
            return this != POSITIVE_PAY && this != DECISIONS;
        }
    }

    /** What ends a record. */
    public enum LineEnd {
        LF("\n"),
        CRLF("\r\n"),
        CR("\r"),
        /** Records of one length follow each other with nothing between. */
        NONE("");

        private final String characters;

        LineEnd(String characters) {
            this.characters = characters;
        }

        public String characters() {
            return characters;
        }
    }

    public Charset charset() {
        return Charset.forName(encoding);
    }

    /** How many records stand before the details. */
    public int before() {
        return at(LayoutRecord.Place.HEADER).size();
    }

    /** How many records stand after them. */
    public int after() {
        return at(LayoutRecord.Place.TRAILER).size();
    }

    /** How many records tell of one event of this kind. */
    public int recordsOf(BankFile.Item.Kind kind) {
        return (int) at(LayoutRecord.Place.DETAIL).stream()
                .filter(detail -> detail.tells().mayTell(kind.name()))
                .count();
    }

    List<LayoutRecord> at(LayoutRecord.Place place) {
        return records.stream().filter(record -> record.place() == place).toList();
    }
}
