package leveltally.core.marks;

import java.time.LocalDate;

/**
 * A payment to the same account that the bank sent back.
 *
 * @param called the payment's reference
 * @param on the day it was read
 * @param why the bank's code and words
 */
public record SentBack(String called, LocalDate on, String why) {}
