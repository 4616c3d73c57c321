package leveltally.server.mail;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** A mail and what became of it; {@code trouble} is what the server said when it last refused; empty where it never did; {@code advice} goes to a payee;
 * {@code inTrouble} waits for somebody to look at it. */
public record MailView(
        long id,
        String to,
        String address,
        String subject,
        String link,
        String text,
        Instant madeAt,
        String state,
        String stateWords,
        int tries,
        Instant nextTryAt,
        @Nullable Instant sentAt,
        String trouble,
        boolean advice,
        boolean inTrouble) {}
