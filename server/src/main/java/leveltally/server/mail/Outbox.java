package leveltally.server.mail;

import java.sql.Timestamp;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.Settings;
import leveltally.server.frame.WorkIds;
import leveltally.server.people.People;
import org.springframework.jdbc.core.JdbcOperations;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Mail that waits to be sent. It is written in the transaction of the deed it tells of, so that none goes out for what did
 * not happen, and sent afterwards, so that no deed waits for a mail server.
 */
@Service
public class Outbox {
    private final JdbcClient jdbc;
    private final JdbcOperations many;
    private final WorkIds ids;
    private final People people;
    private final Settings settings;
    private final AuditTrail audit;

    Outbox(JdbcClient jdbc, JdbcOperations many, WorkIds ids, People people, Settings settings, AuditTrail audit) {
        this.jdbc = jdbc;
        this.many = many;
        this.ids = ids;
        this.people = people;
        this.settings = settings;
        this.audit = audit;
    }

    /** Tells people who may sign in and have an address; the others see it on their screens. */
    @Transactional
    public void put(Collection<PersonId> to, Letter letter, Instant now) {
        if (to.isEmpty()) {
            return;
        }
        WorkIds.Supply supply = ids.supply();
        List<Object[]> rows = new ArrayList<>();
        for (People.Person person : people.enabled()) {
            if (to.contains(person.id()) && !person.email().isEmpty()) {
                rows.add(new Object[] {
                    supply.next(),
                    person.id().value(),
                    person.email(),
                    letter.subject(),
                    letter.text(settings.address(), person.name()),
                    letter.html(settings.address(), person.name()),
                    letter.path(),
                    Timestamp.from(now),
                    Timestamp.from(now)
                });
            }
        }
        many.batchUpdate("""
                INSERT INTO mail (id, person_id, address, subject, text, html, link, made_at, state, tries, next_try_at,
                  trouble) VALUES (?, ?, ?, ?, ?, ?, ?, ?, 'WAITING', 0, ?, '')
                """, rows);
    }

    private static final String NO_ADDRESS = "no mail address is known for this payee; send it to another, or print it";

    /** Tells payees, with what {@link Enclosing} draws; those without an address stay here as given up. */
    @Transactional
    public void put(Collection<ToPayee> mails, Instant now) {
        WorkIds.Supply supply = ids.supply();
        many.batchUpdate(
                """
                INSERT INTO mail (id, payment_id, address, subject, text, html, link, message_id, made_at, state, tries,
                  next_try_at, trouble) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 0, ?, ?)
                """,
                mails.stream()
                        .map(one -> new Object[] {
                            supply.next(),
                            one.payment().value(),
                            one.address(),
                            one.subject(),
                            one.text(),
                            one.html(),
                            one.link(),
                            messageId(),
                            Timestamp.from(now),
                            (one.address().isEmpty() ? MailState.GIVEN_UP : MailState.WAITING).name(),
                            Timestamp.from(now),
                            one.address().isEmpty() ? NO_ADDRESS : ""
                        })
                        .toList());
    }

    /** Sends a vendor the sheet of what it was paid. */
    @Transactional
    public void put(PaidSheetMail mail, Instant now) {
        jdbc.sql("""
                        INSERT INTO mail (id, vendor_id, paid_from, paid_to, address, subject, text, html, link, message_id, made_at,
                          state, tries, next_try_at, trouble)
                        VALUES (:id, :vendor, :from, :to, :address, :subject, :text, :html, :link, :message, :now, :state, 0, :now, '')
                        """)
                .param("id", ids.supply().next())
                .param("vendor", mail.vendor().value())
                .param("from", mail.from())
                .param("to", mail.to())
                .param("address", mail.address())
                .param("subject", mail.subject())
                .param("text", mail.text())
                .param("html", mail.html())
                .param("link", mail.link())
                .param("message", messageId())
                .param("now", Timestamp.from(now))
                .param("state", MailState.WAITING.name())
                .update();
    }

    private String messageId() {
        return "<" + UUID.randomUUID() + "@" + settings.mail().from().replaceAll("^.*@|>$", "") + ">";
    }

    /** Says that a mail which was sent came back. */
    @Transactional
    public void returned(Actor by, long id, String why) {
        by.mayDo(Deed.MAIL_ADVICE);
        String reason = why.strip();
        if (reason.isEmpty()) {
            throw Refusal.invalidField(
                    "reason-missing", "why", "Say what came back, such as “no such mailbox”, so that others know.");
        }
        int sent = jdbc.sql("UPDATE mail SET state = :returned, trouble = :why WHERE id = :id AND state = :sent"
                        + " AND person_id IS NULL")
                .param("returned", MailState.RETURNED.name())
                .param("why", reason)
                .param("id", id)
                .param("sent", MailState.SENT.name())
                .update();
        if (sent == 0) {
            throw Refusal.conflict(
                    "mail-not-sent", "Only advice that was sent can come back. Look at the list of mail again.");
        }
        audit.record(by, "say that mail came back", "mail " + id, Map.of("why", reason));
    }

    /** Puts a mail that was given up, or waits for its next try, in line again. */
    @Transactional
    public void again(Actor by, long id) {
        by.mayDo(Deed.RETRY_MAIL);
        int waiting = jdbc.sql(
                        "UPDATE mail SET state = :waiting, tries = 0, next_try_at = :now WHERE id = :id AND state <> :sent"
                                + " AND address <> ''")
                .param("waiting", MailState.WAITING.name())
                .param("sent", MailState.SENT.name())
                .param("now", Timestamp.from(by.now()))
                .param("id", id)
                .update();
        if (waiting == 0) {
            throw Refusal.conflict(
                    "mail-sent", "This mail was sent, has no address, or there is none. Look at the list again.");
        }
        audit.record(by, "send mail again", "mail " + id, Map.of());
    }
}
