package leveltally.server.contacts;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;

/**
 * Checks outstanding for longer than some days, the oldest first, and how old all of them are.
 *
 * @param days by the company's policy a check is stale after
 */
record StaleView(int days, List<StaleCheck> checks, List<MoneyView> amounts, List<AgeView> ages) {
    /**
     * @param check its number's id in the register
     * @param stopped whether it is stopped
     * @param waits whether a second person is asked about it
     * @param reachable whether a mail address of its payee is known
     * @param state of its payee's address that takes what is unclaimed; empty where none is kept
     * @param unclaimedFrom the day from which it can be handed over
     * @param printed whether it was printed here, so that a list of what it pays can be enclosed
     */
    record StaleCheck(
            long payment,
            long check,
            String name,
            String payee,
            long vendor,
            String address,
            LocalDate checkDate,
            long days,
            MoneyView amount,
            boolean stopped,
            boolean waits,
            boolean reachable,
            boolean printed,
            String state,
            @Nullable LocalDate unclaimedFrom,
            List<ContactView> contacts) {}

    record ContactView(String how, LocalDate on, String note, String who, Instant at) {}

    /**
     * Checks of one age and currency.
     *
     * @param share of the largest, in percent
     */
    record AgeView(String words, int checks, MoneyView amount, int share) {}
}
