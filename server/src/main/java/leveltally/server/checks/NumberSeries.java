package leveltally.server.checks;

import leveltally.core.checks.SeriesId;
import leveltally.core.checks.Stock;
import leveltally.core.ledger.WayId;
import leveltally.core.printing.MicrPattern;

/**
 * A run of check numbers, and what is printed with them.
 *
 * @param way the way to pay whose payments carry its numbers
 * @param prefix stands before each number of it, empty for most
 * @param currencyWord ends the amount in words, such as {@code dollars}
 * @param validity how long its checks are good for, in words
 */
public record NumberSeries(
        SeriesId id,
        WayId way,
        String prefix,
        Stock stock,
        long firstNumber,
        long nextNumber,
        MicrPattern micr,
        String currencyWord,
        String validity) {}
