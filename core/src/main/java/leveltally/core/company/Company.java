package leveltally.core.company;

import java.time.ZoneId;
import java.util.List;
import leveltally.core.Refusal;
import org.jspecify.annotations.Nullable;

/**
 * The company we pay for, and its policies.
 *
 * @param address as its checks show it, line by line
 * @param graceDays how long after its date a discount is still taken
 * @param staleDays a check outstanding for longer is stale-dated
 * @param zone of its business day; null where the machine is configured for it
 * @param year how its months are counted
 * @param oneTimeByTwo whether a second person confirms the address of a payee who is paid once, before it is paid
 */
public record Company(
        String name,
        List<String> address,
        int graceDays,
        int staleDays,
        @Nullable ZoneId zone,
        FiscalYear year,
        boolean oneTimeByTwo) {
    /** After how many days a check is stale where nothing else was decided. */
    public static final int USUAL_STALE_DAYS = 180;

    private static final int MOST_NAME = 80;
    private static final int MOST_LINES = 5;
    private static final int MOST_LINE = 50;
    private static final int MOST_GRACE = 30;
    private static final int LEAST_STALE = 30;
    private static final int MOST_STALE = 730;

    /** One whose year begins in January, on the business day of its machine. */
    public Company(String name, List<String> address, int graceDays, int staleDays) {
        this(name, address, graceDays, staleDays, null, FiscalYear.OF_THE_CALENDAR, true);
    }

    /**
     * A zone as somebody typed it; empty for none.
     *
     * @throws Refusal when it is none
     */
    public static @Nullable ZoneId zone(String typed) {
        if (typed.isBlank()) {
            return null;
        }
        return ZoneId.getAvailableZoneIds().stream()
                .filter(known -> known.equalsIgnoreCase(typed.strip()))
                .findFirst()
                .map(ZoneId::of)
                .orElseThrow(() -> Refusal.invalidField(
                        "no-zone",
                        "zone",
                        "“" + typed.strip()
                                + "” is no time zone. Write it as Europe/Berlin or America/New_York, or leave it"
                                + " empty."));
    }

    /** @throws Refusal naming the field that cannot be so */
    public Company {
        name = name.strip();
        address = address.stream()
                .map(String::strip)
                .filter(line -> !line.isEmpty())
                .toList();
        if (name.isEmpty() || name.length() > MOST_NAME) {
            throw Refusal.invalidField(
                    "company-name", "name", "Give the company's name in at most " + MOST_NAME + " characters.");
        }
        if (address.isEmpty()
                || address.size() > MOST_LINES
                || address.stream().anyMatch(line -> line.length() > MOST_LINE)) {
            throw Refusal.invalidField(
                    "company-address",
                    "address",
                    "The address has one to " + MOST_LINES + " lines of at most " + MOST_LINE
                            + " characters: it stands in the corner of every check.");
        }
        if (graceDays < 0 || graceDays > MOST_GRACE) {
            throw Refusal.invalidField(
                    "grace-days", "graceDays", "Grace days lie between 0 and " + MOST_GRACE + ". Type 0 for none.");
        }
        if (staleDays < LEAST_STALE || staleDays > MOST_STALE) {
            throw Refusal.invalidField(
                    "stale-days",
                    "staleDays",
                    "A check turns stale after " + LEAST_STALE + " to " + MOST_STALE + " days. " + USUAL_STALE_DAYS
                            + " days are usual, as checks say on their face.");
        }
    }
}
