package leveltally.core.setup;

import static leveltally.core.people.Role.ADMINISTRATOR;
import static leveltally.core.people.Role.CLERK;
import static leveltally.core.people.Role.CONTROLLER;

import java.util.Set;
import leveltally.core.people.Role;

/** The steps from nothing to the first check, in the order in which most take them; any order will do. */
public enum SetupStep {
    COMPANY(
            "The company",
            "its name and address stand on every check",
            false,
            "/company",
            Set.of(CONTROLLER, ADMINISTRATOR)),
    ACCOUNTS(
            "Accounts of the ledger",
            "invoices can be entered, and what is paid is written where it belongs",
            false,
            "/ledger?view=accounts",
            Set.of(CONTROLLER, ADMINISTRATOR)),
    MONTH(
            "The months of today and of the first run",
            "documents and payments can be dated in it",
            false,
            "/ledger",
            Set.of(CONTROLLER, ADMINISTRATOR)),
    BANK_ACCOUNT(
            "A bank account and its check numbers",
            "batches can be made and checks printed",
            false,
            "/bank-accounts",
            Set.of(ADMINISTRATOR)),
    PEOPLE(
            "A clerk, an approver and a controller",
            "one prepares, another approves; a second pair of eyes confirms what needs two",
            false,
            "/people",
            Set.of(ADMINISTRATOR)),
    ROUTES(
            "Routes of approval",
            "who is asked follows amounts and marks; until then one approver is asked for every batch",
            true,
            "/routes",
            Set.of(CONTROLLER)),
    VENDORS(
            "A vendor with an address in force",
            "its invoices can be paid; an address takes a second person",
            false,
            "/vendors",
            Set.of(CLERK)),
    INVOICES("An invoice", "there is something to pay: it shows in Due", false, "/enter", Set.of(CLERK));

    private final String title;
    private final String unlocks;
    private final boolean optional;
    private final String address;
    private final Set<Role> doneBy;

    SetupStep(String title, String unlocks, boolean optional, String address, Set<Role> doneBy) {
        this.title = title;
        this.unlocks = unlocks;
        this.optional = optional;
        this.address = address;
        this.doneBy = doneBy;
    }

    public String title() {
        return title;
    }

    /** What can be done once it is there, as the end of a sentence. */
    public String unlocks() {
        return unlocks;
    }

    /** Whether checks can be paid without it. */
    public boolean isOptional() {
        return optional;
    }

    /** The page it is done on. */
    public String address() {
        return address;
    }

    /** Who does it. */
    public Set<Role> doneBy() {
        return doneBy;
    }
}
