package leveltally.core.approval;

import java.util.Set;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;
import org.jspecify.annotations.Nullable;

/** Who may take a step: everybody with a role, or some people by name; never both. */
public record Takers(@Nullable Role role, Set<PersonId> people) {
    public Takers {
        people = Set.copyOf(people);
        if ((role == null) == people.isEmpty()) {
            throw new IllegalArgumentException("takers: either a role or people, not " + role + " and " + people);
        }
    }

    public static Takers of(Role role) {
        return new Takers(role, Set.of());
    }

    public static Takers named(Set<PersonId> people) {
        return new Takers(null, people);
    }

    boolean include(Approver person) {
        Role wanted = role;
        return wanted == null ? people.contains(person.id()) : person.roles().contains(wanted);
    }
}
