package leveltally.server.ledger;

import java.util.List;

/** The company we pay for. */
public record Company(String name, List<String> address, int graceDays) {}
