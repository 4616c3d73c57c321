package leveltally.server.wires;

import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Where the wires of a batch stand.
 *
 * @param toList how many can go onto the list, {@code toListAmount} together
 * @param fees what the bank asked for all of them; empty for nothing
 */
record WiresView(
        String accountName,
        String currency,
        String way,
        boolean listable,
        int toList,
        String toListAmount,
        String fees,
        List<WireLine> payments) {
    /** How far a wire came. */
    enum Step {
        WAITS,
        KEPT_BACK,
        LISTED,
        CONFIRMED,
        POSTED,
        UNDONE
    }

    /**
     * One of them.
     *
     * @param payment null while it is on no list
     * @param bank the end of where it goes
     * @param why what keeps it back; empty for nothing
     */
    record WireLine(
            long claim,
            @Nullable Long payment,
            String called,
            String payee,
            String bank,
            String amount,
            Step step,
            String why,
            String bankReference,
            String fee,
            @Nullable LocalDate listedOn,
            @Nullable LocalDate sentOn,
            String confirmedBy) {}

    /** Something to be typed at the bank's site; {@code value} as it is copied there. */
    record WireField(String label, String value) {}
}
