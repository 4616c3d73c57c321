package leveltally.server.frame;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.sql.ResultSet;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import leveltally.core.money.Money;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;

/** What a statement finds as CSV, row by row; its labels are the heads. */
@Component
public class CsvLists {
    private static final int FETCHED_AT_ONCE = 1_000;
    private static final String MINOR = "_minor";

    private final JdbcClient jdbc;
    private final TransactionTemplate together;

    CsvLists(JdbcClient jdbc, PlatformTransactionManager transactions) {
        this.jdbc = jdbc;
        this.together = new TransactionTemplate(transactions);
    }

    /** @param sql a label that ends in {@code _minor} is an amount in the row's {@code currency} */
    public ResponseEntity<Resource> of(String fileName, String sql, Map<String, ?> params) {
        return Csv.download(
                fileName,
                printer -> together.executeWithoutResult(status -> {
                    jdbc.sql(sql).params(params).withFetchSize(FETCHED_AT_ONCE).query((ResultSet rows) -> {
                        print(printer, heads(rows.getMetaData()));
                        while (rows.next()) {
                            print(printer, cells(rows));
                        }
                        return printer;
                    });
                }));
    }

    private static List<String> heads(ResultSetMetaData meta) throws SQLException {
        List<String> heads = new ArrayList<>();
        for (int i = 1; i <= meta.getColumnCount(); i++) {
            String label = meta.getColumnLabel(i);
            heads.add(label.endsWith(MINOR) ? label.substring(0, label.length() - MINOR.length()) : label);
        }
        return heads;
    }

    private static List<String> cells(ResultSet row) throws SQLException {
        ResultSetMetaData meta = row.getMetaData();
        List<String> cells = new ArrayList<>();
        for (int i = 1; i <= meta.getColumnCount(); i++) {
            String text = row.getString(i);
            if (text != null && meta.getColumnLabel(i).endsWith(MINOR)) {
                text = Money.ofMinor(row.getLong(i), Currency.getInstance(row.getString("currency")))
                        .plain();
            }
            cells.add(text == null ? "" : Csv.harmless(text));
        }
        return cells;
    }

    private static void print(CSVPrinter printer, List<String> cells) {
        try {
            printer.printRecord(cells);
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }
}
