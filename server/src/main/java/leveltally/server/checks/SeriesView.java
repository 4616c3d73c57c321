package leveltally.server.checks;

import io.swagger.v3.oas.annotations.media.Schema;

/** A series to choose. */
@Schema(requiredProperties = {"id", "name", "account", "bankAccount"})
public record SeriesView(long id, String name, String account, long bankAccount) {}
