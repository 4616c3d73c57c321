package leveltally.server.printing;

import leveltally.core.batches.ClaimId;

/** A payment that cannot be numbered now, and why, with its way out; the others go on. */
public record Behind(ClaimId claim, String payee, String why) {}
