package leveltally.server.outside;

import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;

/**
 * One payment as it is typed.
 *
 * @param number as it stands on the check, or as the bank or the card's issuer gave it
 * @param vendor its number or its name
 * @param said what it was for, see {@link leveltally.core.batches.Said}
 */
public record OutsideRow(
        @NotNull @Size(max = 60) String number,
        @NotNull LocalDate paidOn,
        @NotNull @Size(max = 120) String vendor,
        @NotNull @Size(max = 300) String said,
        @NotNull @Size(max = 40) String amount) {}
