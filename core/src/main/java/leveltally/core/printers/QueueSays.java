package leveltally.core.printers;

import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What the commands {@code lp} and {@code lpstat} mean (POSIX {@code lp}; messages of the printing system in the C locale).
 * Only what is certain counts as certain: any message that is not known here means that nobody knows.
 */
public final class QueueSays {
    private static final Pattern TAKEN = Pattern.compile("request id is (\\S+-\\d+)\\b");

    /** Said before any page is sent; the first also where the system itself is not reached. */
    private static final List<String> NOTHING_WAS_SENT = List.of("does not exist", "is not accepting jobs");

    private QueueSays() {}

    /**
     * @param code how {@code lp} ended
     * @param text all it said
     */
    public static Handed ofHanding(int code, String text) {
        Matcher taken = TAKEN.matcher(text);
        if (taken.find()) {
            return Handed.accepted("", taken.group(1));
        }
        String why = line(text);
        if (code == 0) {
            return Handed.notKnown("it named no job: " + why);
        }
        return NOTHING_WAS_SENT.stream().anyMatch(text::contains) ? Handed.refused(why) : Handed.notKnown(why);
    }

    /**
     * True unless it is certain that a job is over.
     *
     * @param code how {@code lpstat -W not-completed} of the job's queue ended
     * @param text all it said
     */
    public static boolean mayStillPrint(int code, String text, String job) {
        return code != 0 || text.lines().anyMatch(line -> line.split("\\s+")[0].equals(job));
    }

    private static String line(String text) {
        return text.lines()
                .map(String::strip)
                .filter(line -> !line.isEmpty())
                .findFirst()
                .orElse("it said nothing")
                .replaceFirst("^lp: ", "");
    }
}
