package leveltally.core.vendors;

import leveltally.core.Refusal;
import leveltally.core.people.PersonId;

/** An address or bank details take effect by two people, who both keep away from payments to that vendor for a while. */
public final class TwoPeople {
    /** So many days a change is marked, and whoever proposed or confirmed it approves no payment to that vendor. */
    public static final int DAYS = 30;

    private TwoPeople() {}

    /**
     * Whether a second person has to confirm a payee's address before a payment goes there. Bank details always take two; the
     * address of somebody who is paid once and by check takes them where the company asks for it, for whoever approves the
     * payment sees it, and is somebody else.
     *
     * @param oneTime the payee is paid once
     * @param asked the company asks for two people there, too
     */
    public static boolean mustAgree(PaymentMethod by, boolean oneTime, boolean asked) {
        return asked || !oneTime || by != PaymentMethod.CHECK;
    }

    /** @throws Refusal when the person who proposed a change would decide on it as well */
    public static void check(PersonId proposer, PersonId decider) {
        if (proposer.equals(decider)) {
            throw Refusal.notAllowed(
                    "own-proposal",
                    "You proposed this change, so somebody else must confirm or refuse it. You can take it back.");
        }
    }
}
