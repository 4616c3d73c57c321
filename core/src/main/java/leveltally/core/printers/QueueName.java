package leveltally.core.printers;

import java.util.regex.Pattern;
import leveltally.core.Refusal;

/**
 * The name of a queue of the printing system: printable ASCII without space, slash, number sign, quotes and the like, and
 * never one that reads as an option (RFC 8011 leaves names to the system; this is what its command line takes unharmed).
 */
public record QueueName(String value) {
    private static final Pattern NAME = Pattern.compile("[A-Za-z0-9_][A-Za-z0-9_.@+-]{0,126}");

    public QueueName {
        if (!NAME.matcher(value).matches()) {
            throw Refusal.invalidField(
                    "queue-name",
                    "queue",
                    "A queue's name is letters, digits, dots, dashes and underscores, at most 127, such as office-laser.");
        }
    }
}
