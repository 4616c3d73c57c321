package leveltally.server.mail;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** A mail and what became of it; {@code trouble} is what the server said when it last refused; empty where it never did. */
public record MailView(
        long id,
        String to,
        String address,
        String subject,
        String link,
        String text,
        Instant madeAt,
        String state,
        int tries,
        Instant nextTryAt,
        @Nullable Instant sentAt,
        String trouble) {}
