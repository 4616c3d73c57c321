package leveltally.server.vendors;

import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** A change as screens show it; bank details are masked. */
public record ToldChange(
        long id,
        long vendor,
        String vendorName,
        long remitTo,
        String what,
        List<String> before,
        String beforeBank,
        List<String> after,
        String afterBank,
        String why,
        long proposedById,
        String proposedBy,
        java.time.Instant proposedAt,
        String state,
        @Nullable String decidedBy,
        java.time.@Nullable Instant decidedAt,
        @Nullable LocalDate decidedOn,
        String decidedWhy,
        boolean rebanked) {}
