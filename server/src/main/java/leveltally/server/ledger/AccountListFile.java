package leveltally.server.ledger;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import leveltally.core.Refusal;
import leveltally.core.ledger.AccountList;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;

/** Reads a list of accounts: CSV with the columns code, name and kind, in that order, with a heading or without one. */
final class AccountListFile {
    private static final int MOST_ROWS = 5_000;
    private static final int COLUMNS = 3;

    private AccountListFile() {}

    /** @throws Refusal when the text is no such list */
    static List<AccountList.Row> rows(String text) {
        String plain = text.startsWith("\ufeff") ? text.substring(1) : text;
        List<AccountList.Row> rows = new ArrayList<>();
        try (CSVParser parser = CSVParser.parse(plain, format(plain))) {
            for (CSVRecord record : parser) {
                int line = (int) record.getRecordNumber();
                if (line == 1 && record.get(0).strip().toLowerCase(Locale.ROOT).equals("code")) {
                    continue;
                }
                if (rows.size() == MOST_ROWS) {
                    throw refused("There are more than " + MOST_ROWS + " rows. Bring them in in parts.");
                }
                rows.add(new AccountList.Row(line, cell(record, 0), cell(record, 1), cell(record, 2)));
            }
        } catch (IOException | java.io.UncheckedIOException | IllegalArgumentException unreadable) {
            throw refused(
                    "The text cannot be read as CSV: a quotation mark is opened and not closed. Look at it again.");
        }
        if (rows.isEmpty()) {
            throw refused(
                    "There is no account in it. Each row is a code, a name and a kind, such as 5200,Chandlery,expense.");
        }
        return rows;
    }

    private static String cell(CSVRecord record, int column) {
        return column < Math.min(record.size(), COLUMNS) ? record.get(column) : "";
    }

    /** What stands between the cells of the first line: a tab or a semicolon where there is one, or else a comma. */
    private static CSVFormat format(String text) {
        String first = text.lines().filter(line -> !line.isBlank()).findFirst().orElse("");
        char between = first.indexOf('\t') >= 0 ? '\t' : first.indexOf(';') >= 0 ? ';' : ',';
        return CSVFormat.RFC4180
                .builder()
                .setDelimiter(between)
                .setIgnoreEmptyLines(true)
                .get();
    }

    private static Refusal refused(String sentence) {
        return Refusal.invalidField("no-list", "text", sentence);
    }
}
