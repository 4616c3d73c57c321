package leveltally.core.batches;

import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import leveltally.core.Refusal;

/** Where a batch stands; {@link #to} is the only gate between the states. */
public enum BatchState {
    DRAFT("draft"),
    IN_APPROVAL("in approval"),
    APPROVED("approved"),
    NUMBERED("numbered"),
    /** Its payments stand in a file for the bank. */
    FILED("filed"),
    POSTED("posted"),
    WITHDRAWN("withdrawn");

    private static final Map<BatchState, Set<BatchState>> ALLOWED = Map.of(
            DRAFT, Set.of(IN_APPROVAL, WITHDRAWN),
            IN_APPROVAL, Set.of(APPROVED, DRAFT, WITHDRAWN),
            // posted at once where its payments left before they were written down
            APPROVED, Set.of(NUMBERED, FILED, POSTED, DRAFT, WITHDRAWN),
            // withdrawn when all its payments were taken out
            NUMBERED, Set.of(POSTED, WITHDRAWN),
            // withdrawn when every file was refused
            FILED, Set.of(POSTED, WITHDRAWN),
            POSTED, Set.of(),
            WITHDRAWN, Set.of());

    private final String words;

    BatchState(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** True while its claims keep their invoices reserved. */
    public boolean isLive() {
        return this != POSTED && this != WITHDRAWN;
    }

    /** The states in which it is live. */
    public static Set<BatchState> live() {
        return Stream.of(values()).filter(BatchState::isLive).collect(Collectors.toUnmodifiableSet());
    }

    /**
     * A mark on a batch whose payments are not all posted.
     *
     * @param posted how many are
     */
    public boolean isPartlyPosted(int posted) {
        return (this == NUMBERED || this == FILED) && posted > 0;
    }

    /** True while lines may change; a change after sending voids the approval. */
    public boolean isEditable() {
        return this == DRAFT || this == IN_APPROVAL || this == APPROVED;
    }

    /** @throws Refusal when a batch in this state cannot become {@code next} */
    public BatchState to(BatchState next) {
        if (!ALLOWED.getOrDefault(this, Set.of()).contains(next)) {
            throw Refusal.conflict(
                    "wrong-state",
                    "This batch is " + words + ", so it cannot become " + next.words
                            + ". Look at it again: somebody may have gone on with it.");
        }
        return next;
    }
}
