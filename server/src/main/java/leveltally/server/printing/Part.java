package leveltally.server.printing;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.vendors.Delivery;

/**
 * What of a batch is printed now.
 *
 * @param claims the payments; empty for all that wait
 * @param byDelivery sorted by how they go, so that the tray need not be; within that, in the order of the batch
 */
public record Part(Set<ClaimId> claims, boolean byDelivery) {
    public static final Part WHOLE = new Part(Set.of(), false);

    boolean has(ClaimId claim) {
        return claims.isEmpty() || claims.contains(claim);
    }

    List<Claim> ordered(List<Claim> wanted, Map<ClaimId, Delivery> deliveries) {
        return byDelivery
                ? wanted.stream()
                        .sorted(Comparator.comparing(claim -> deliveries.getOrDefault(claim.id(), Delivery.MAIL)))
                        .toList()
                : wanted;
    }
}
