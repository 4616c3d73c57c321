package leveltally.server.workline;

import java.time.LocalDate;
import java.util.List;
import leveltally.server.frame.MoneyView;

/** How much waits at each station; {@code currency} is the main account's: amounts of it need no code beside them. */
public record WorkView(LocalDate today, String currency, List<StationView> stations) {
    /**
     * What waits at one.
     *
     * @param counted what is counted there, in words
     * @param amounts per currency, the main account's first, never added across
     * @param look what of it needs a look, in words; empty for nothing
     */
    public record StationView(String station, String counted, int count, List<MoneyView> amounts, String look) {}
}
