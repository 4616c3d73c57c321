package leveltally.server.voiding;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import leveltally.server.frame.MoneyView;

/**
 * What somebody asked to be undone and a second person has to agree to.
 *
 * @param kind what it is asked for, by name; {@code asksTo} in words before what it is about
 * @param names of the payments, the first three
 * @param mine true where whoever looks asked for it
 * @param mayDecide true where whoever looks can agree
 */
public record UndoingView(
        long id,
        String kind,
        String asksTo,
        String who,
        Instant at,
        LocalDate on,
        String reason,
        List<String> names,
        int count,
        List<MoneyView> amounts,
        boolean mine,
        boolean mayDecide) {}
