package leveltally.server.checks;

import leveltally.core.checks.NumberRange;
import leveltally.core.checks.SeriesId;
import leveltally.core.checks.Signing;
import leveltally.core.checks.Stock;
import leveltally.core.ledger.WayId;
import leveltally.core.paper.MicrPattern;

/**
 * A run of check numbers, and what is printed with them.
 *
 * @param way the way to pay whose payments carry its numbers
 * @param range the numbers it can give
 * @param currencyWord ends the amount in words, such as {@code dollars}
 * @param validity how long its checks are good for, in words
 * @param sameNumberReprint whether a damaged sheet may be printed again on its own number
 * @param signing who signs its checks
 * @param loading which paper is loaded for its checks, in the company's words; empty for nothing to say
 */
public record NumberSeries(
        SeriesId id,
        WayId way,
        NumberRange range,
        Stock stock,
        long nextNumber,
        MicrPattern micr,
        String currencyWord,
        String validity,
        boolean sameNumberReprint,
        String loading,
        Signing signing) {}
