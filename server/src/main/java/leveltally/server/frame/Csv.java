package leveltally.server.frame;

import java.io.IOException;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;

/** Lists as CSV (RFC 4180, UTF-8 with a byte order mark), written so that no spreadsheet runs a cell. */
public final class Csv {
    public static final String TYPE = "text/csv";

    private static final Pattern PLAIN_NUMBER = Pattern.compile("-?\\d+(\\.\\d+)?");
    private static final Pattern FORMULA = Pattern.compile("(^|[;\\t\\r\\n])(\\s*[=+\\-@\\t\\r])");

    private Csv() {}

    /** A download of {@code rows} under {@code heads}. */
    public static ResponseEntity<Resource> answer(String fileName, List<String> heads, Stream<List<String>> rows) {
        return download(fileName, printer -> {
            try (rows) {
                printer.printRecord(heads);
                rows.forEach(row -> print(printer, row));
            }
        });
    }

    /** What prints the records. */
    @FunctionalInterface
    public interface Content {
        void printTo(CSVPrinter printer) throws IOException;
    }

    /** A download of what {@code content} prints; its cells must be {@link #harmless}. */
    public static ResponseEntity<Resource> download(String fileName, Content content) {
        return Download.of(fileName, TYPE + ";charset=UTF-8", out -> {
            Writer writer = new OutputStreamWriter(out, StandardCharsets.UTF_8);
            writer.write('\ufeff');
            try (CSVPrinter printer = new CSVPrinter(writer, CSVFormat.RFC4180)) {
                content.printTo(printer);
            }
        });
    }

    private static void print(CSVPrinter printer, List<String> row) {
        try {
            printer.printRecord(row.stream().map(Csv::harmless).toList());
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }

    /** A cell that a spreadsheet would take for a formula is written as text; plain numbers stay numbers. */
    public static String harmless(String cell) {
        if (PLAIN_NUMBER.matcher(cell).matches()) {
            return cell;
        }
        // spreadsheets that split at semicolons or tabs take what follows one for a cell of its own, and so a line
        return FORMULA.matcher(cell).replaceAll("$1'$2");
    }
}
