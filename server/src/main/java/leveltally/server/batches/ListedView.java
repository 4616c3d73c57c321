package leveltally.server.batches;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.time.LocalDate;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;

/** A batch in the list of batches. */
@Schema(
        requiredProperties = {
            "id",
            "name",
            "account",
            "state",
            "stateWords",
            "partlyPosted",
            "claims",
            "amount",
            "checkDate",
            "preparedBy",
            "changedAt"
        })
public record ListedView(
        long id,
        String name,
        String account,
        String state,
        String stateWords,
        boolean partlyPosted,
        int claims,
        MoneyView amount,
        LocalDate checkDate,
        String preparedBy,
        Instant changedAt,
        @Nullable Instant sentAt,
        @Nullable String sentBackReason) {}
