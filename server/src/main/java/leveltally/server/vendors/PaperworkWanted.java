package leveltally.server.vendors;

import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import leveltally.core.DateStyle;
import leveltally.core.vendors.Advice;
import leveltally.core.vendors.Delivery;
import leveltally.core.vendors.Paperwork;
import org.jspecify.annotations.Nullable;

/** What a vendor wishes of its papers; {@code dates} null for the layout's own way. */
record PaperworkWanted(
        @NotNull Advice advice,
        @NotNull @Size(max = 200) String email,
        @NotNull Delivery checks,
        @Nullable DateStyle dates) {
    Paperwork paperwork() {
        return Paperwork.typed(advice, email, checks, dates);
    }
}
