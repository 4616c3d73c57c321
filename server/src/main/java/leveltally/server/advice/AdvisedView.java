package leveltally.server.advice;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * How the payee of a check learns what it is for.
 *
 * @param words how it goes
 * @param address where the vendor's advice goes today; empty for nowhere
 * @param mails each that was written, the newest first
 */
record AdvisedView(String words, String address, boolean maySend, List<AdviceMail> mails) {
    /** {@code trouble} is empty where there was none. */
    record AdviceMail(
            long id,
            String address,
            String state,
            String stateWords,
            Instant madeAt,
            @Nullable Instant sentAt,
            String trouble) {}
}
