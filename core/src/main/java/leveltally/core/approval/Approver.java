package leveltally.core.approval;

import java.util.Set;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.core.people.Role;

/** Somebody who may be asked, as far as approval knows a person. */
public record Approver(PersonId id, String name, Set<Role> roles) {
    public Approver {
        roles = Set.copyOf(roles);
    }

    boolean mayApprove() {
        return Deed.APPROVE.allowedTo(roles);
    }
}
