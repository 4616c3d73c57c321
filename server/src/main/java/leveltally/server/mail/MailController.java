package leveltally.server.mail;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What was told to whom by mail, and what could not be. */
@RestController
@RequestMapping("/api/mail")
@Needs(Deed.READ)
class MailController {
    private static final int MOST_LISTED = 300;

    private final JdbcClient jdbc;
    private final Outbox outbox;
    private final AuditTrail audit;

    MailController(JdbcClient jdbc, Outbox outbox, AuditTrail audit) {
        this.jdbc = jdbc;
        this.outbox = outbox;
        this.audit = audit;
    }

    /** {@code trouble} is what the server said when it last refused; empty where it never did. */
    @Schema(
            requiredProperties = {
                "id",
                "to",
                "address",
                "subject",
                "link",
                "text",
                "madeAt",
                "state",
                "tries",
                "nextTryAt",
                "trouble"
            })
    record MailView(
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

    /** The newest mails, those in trouble first. */
    @GetMapping
    List<MailView> list() {
        return jdbc.sql("""
                        SELECT m.id, p.name, m.address, m.subject, m.link, m.text, m.made_at, m.state, m.tries,
                          m.next_try_at, m.sent_at, m.trouble
                        FROM mail m JOIN person p ON p.id = m.person_id
                        ORDER BY m.trouble <> '' DESC, m.id DESC LIMIT :most
                        """)
                .param("most", MOST_LISTED)
                .query((r, n) -> {
                    var sent = r.getTimestamp(11);
                    return new MailView(
                            r.getLong(1),
                            r.getString(2),
                            r.getString(3),
                            r.getString(4),
                            r.getString(5),
                            r.getString(6),
                            r.getTimestamp(7).toInstant(),
                            r.getString(8),
                            r.getInt(9),
                            r.getTimestamp(10).toInstant(),
                            sent == null ? null : sent.toInstant(),
                            r.getString(12));
                })
                .list();
    }

    @PostMapping("/{id}/again")
    @Needs(Deed.RETRY_MAIL)
    @Transactional
    public void again(Actor by, @PathVariable long id) {
        if (!outbox.again(id, by.now())) {
            throw Refusal.conflict("mail-sent", "This mail was sent, or there is none. Look at the list again.");
        }
        audit.record(by, "send mail again", "mail " + id, Map.of());
    }
}
