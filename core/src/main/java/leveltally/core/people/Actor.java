package leveltally.core.people;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Set;
import leveltally.core.Refusal;

/**
 * Who does a deed, and when: the business date it counts for and the real instant it happens at.
 *
 * <p>The two times are never compared with each other.
 */
public record Actor(PersonId person, String name, Set<Role> roles, LocalDate today, Instant now, String from) {
    public Actor {
        roles = Set.copyOf(roles);
    }

    /** @throws Refusal when none of this person's roles may do the deed */
    public void mayDo(Deed deed) {
        if (!deed.allowedTo(roles)) {
            throw Refusal.notAllowed(
                    "role",
                    "You cannot " + deed.words() + ": that needs the role "
                            + String.join(
                                    " or ",
                                    deed.roles().stream()
                                            .map(role -> role.name().toLowerCase(java.util.Locale.ROOT))
                                            .toList())
                            + ". Ask somebody who has it.");
        }
    }
}
