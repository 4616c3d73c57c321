package leveltally.server.approval;

import io.swagger.v3.oas.annotations.media.Schema;

/** What was tried, in words, and the route it takes. */
@Schema(requiredProperties = {"asking", "route"})
public record TriedRoutes(String asking, RouteView route) {}
