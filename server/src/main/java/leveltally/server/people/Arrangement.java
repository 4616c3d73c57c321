package leveltally.server.people;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * How somebody looks at a list.
 *
 * @param columns in their order; any the list has besides come after them
 * @param sortedBy the column; null for the list's own order
 * @param folded the groups of which only the heading is shown
 */
record Arrangement(
        @NotNull @Size(max = 40) List<@Valid @NotNull ArrangedColumn> columns,
        @Size(max = 40) @Nullable String sortedBy,
        boolean descending,
        @NotNull @Size(max = 200) List<@NotNull @Size(max = 120) String> folded) {
    /** @param width in CSS pixels; null for the column's own */
    record ArrangedColumn(
            @NotNull @Size(max = 40) String key,
            @Min(24) @Max(2_000) @Nullable Integer width,
            boolean hidden) {}
}
