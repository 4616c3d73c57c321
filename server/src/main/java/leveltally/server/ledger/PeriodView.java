package leveltally.server.ledger;

import io.swagger.v3.oas.annotations.media.Schema;

/** A month, and whether it is locked. */
@Schema(requiredProperties = {"month", "name", "locked"})
public record PeriodView(String month, String name, boolean locked) {}
