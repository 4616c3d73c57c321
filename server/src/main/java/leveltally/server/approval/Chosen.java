package leveltally.server.approval;

import java.util.List;
import java.util.Map;
import leveltally.core.approval.Policy;
import leveltally.core.batches.ClaimId;
import leveltally.core.marks.Mark;

/** What a route is chosen by, and what was chosen. */
record Chosen(
        Policies.InForce policy,
        Policy.Asking asking,
        Policy.Choice choice,
        Map<ClaimId, List<Mark>> marks,
        String shortOf) {}
