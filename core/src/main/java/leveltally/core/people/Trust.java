package leveltally.core.people;

import java.util.EnumSet;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;

/** Who may change what others are trusted with: never oneself, and never so that no administrator is left. */
public final class Trust {
    private Trust() {}

    private static final Set<Role> BY_TWO = EnumSet.of(Role.APPROVER, Role.CONTROLLER);

    /** Those among the roles that let money out: each is given by two people. */
    public static Set<Role> byTwo(Set<Role> roles) {
        return roles.stream().filter(BY_TWO::contains).collect(Collectors.toUnmodifiableSet());
    }

    /**
     * Whether this person may agree to what another gave a third.
     *
     * @throws Refusal when they gave it themselves, or it is theirs
     */
    public static void checkSecond(PersonId by, PersonId proposedBy, PersonId whose) {
        if (by.equals(proposedBy) || by.equals(whose)) {
            throw Refusal.notAllowed(
                    "second-person", "Somebody else must agree to this: neither who proposed it nor whom it is about.");
        }
    }

    /** @throws Refusal when somebody changes their own roles */
    public static void checkRoles(PersonId by, PersonId whose, Set<Role> before, Set<Role> after) {
        if (by.equals(whose) && !before.equals(after)) {
            throw Refusal.notAllowed(
                    "own-roles", "Nobody changes their own roles. Ask another administrator to do it.");
        }
        if (after.isEmpty()) {
            throw Refusal.invalidField("no-role", "roles", "Choose at least one role, or disable the person instead.");
        }
    }

    /**
     * @param others how many other people are enabled administrators
     * @throws Refusal when the last administrator would be disabled or lose the role
     */
    public static void checkAdministrators(boolean wasOne, boolean staysOne, long others) {
        if (wasOne && !staysOne && others == 0) {
            throw Refusal.conflict(
                    "last-administrator",
                    "This is the last administrator; without one nobody could let people in. Make another one first.");
        }
    }
}
