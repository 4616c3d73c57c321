package leveltally.core.imports;

import java.time.LocalDate;
import leveltally.core.money.DecimalMark;
import org.jspecify.annotations.Nullable;

/**
 * How somebody chose to read a whole file.
 *
 * @param mark what parts the decimals off in its amounts
 * @param ledgerDate stands in where a document's own day lies in no open period; null for none
 * @param account the code that stands in where a line names no account of the ledger; empty for none
 */
public record Reading(DecimalMark mark, @Nullable LocalDate ledgerDate, String account) {
    public static final Reading PLAIN = new Reading(DecimalMark.POINT, null, "");
}
