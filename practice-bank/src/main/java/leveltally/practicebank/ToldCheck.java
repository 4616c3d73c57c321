package leveltally.practicebank;

import org.jspecify.annotations.Nullable;

/**
 * What a file tells of one check.
 *
 * @param issued whether it is an issue; a void otherwise
 * @param number its digits
 * @param minor its amount in the smallest unit; null where the layout does not tell it
 */
public record ToldCheck(
        boolean issued, long number, @Nullable Long minor, String day, String payee) {}
