package leveltally.server.workline;

import io.swagger.v3.oas.annotations.media.Schema;

/** Something the search found, and where it is shown. */
@Schema(requiredProperties = {"kind", "title", "detail", "address"})
public record FoundView(String kind, String title, String detail, String address) {}
