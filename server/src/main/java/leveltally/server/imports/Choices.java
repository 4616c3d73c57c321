package leveltally.server.imports;

import java.time.LocalDate;
import java.util.Map;
import leveltally.core.imports.Reading;
import leveltally.core.money.DecimalMark;
import org.jspecify.annotations.Nullable;

/**
 * What somebody chose for a whole file; kept as JSON beside it.
 *
 * @param columns our column's name to the header that stands for it
 * @param mark null for the decimal point
 * @param ledgerDate stands in where a document's own day lies in no open period
 * @param account the code that stands in where a line names no account
 */
record Choices(
        @Nullable Map<String, String> columns,
        @Nullable DecimalMark mark,
        @Nullable LocalDate ledgerDate,
        @Nullable String account) {

    Map<String, String> chosenColumns() {
        return columns == null ? Map.of() : columns;
    }

    Reading reading() {
        return new Reading(mark == null ? DecimalMark.POINT : mark, ledgerDate, account == null ? "" : account.strip());
    }
}
