package leveltally.server.approval;

/** What was tried, in words, and the route it takes. */
public record TriedRoutes(String asking, RouteView route) {}
