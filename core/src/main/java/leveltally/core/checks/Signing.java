package leveltally.core.checks;

import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * Who signs the checks of a series, in minor units of the account's currency; null for what is not limited, or not there.
 *
 * @param picture of a signature, by its id
 * @param pictureUpTo the largest amount it signs; somebody signs by hand above
 * @param secondAbove the largest amount that one person signs alone
 * @param most the largest check there may be
 */
public record Signing(
        @Nullable Long picture,
        @Nullable Long pictureUpTo,
        @Nullable Long secondAbove,
        @Nullable Long most) {
    public Signing {
        if ((picture == null) != (pictureUpTo == null)) {
            throw new IllegalArgumentException("a picture of a signature, and nothing else, has a limit");
        }
    }

    /** Whether a check may be so large. */
    public boolean allows(Money amount) {
        return most == null || amount.minor() <= most;
    }
}
