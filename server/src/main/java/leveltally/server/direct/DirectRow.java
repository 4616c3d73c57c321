package leveltally.server.direct;

import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import org.jspecify.annotations.Nullable;

/**
 * One payment as it is typed.
 *
 * @param vendor its number or its name
 * @param said what it is for, see {@link leveltally.core.batches.Said}
 * @param reference what the payee reads
 * @param schedule the schedule whose day {@code dueOn} it pays; null for none, as is the day
 */
public record DirectRow(
        @NotNull @Size(max = 120) String vendor,
        @NotNull @Size(max = 300) String said,
        @NotNull @Size(max = 60) String reference,
        @NotNull @Size(max = 40) String amount,
        @Nullable Long schedule,
        @Nullable LocalDate dueOn) {}
