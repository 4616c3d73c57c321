package leveltally.server.mail;

import jakarta.mail.MessagingException;
import jakarta.mail.internet.MimeMessage;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Timestamp;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.UUID;
import leveltally.core.Refusal;
import leveltally.core.payments.PaymentId;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.Settings;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.io.ByteArrayResource;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.mail.MailException;
import org.springframework.mail.javamail.JavaMailSender;
import org.springframework.mail.javamail.MimeMessageHelper;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Carries waiting mail to the server. Several may run side by side: each takes a mail for a while before sending it. A mail
 * that fails is tried again, later and later, for about three days; then it is given up and stays visible.
 */
@Component
public class Postman {
    static final int MOST_TRIES = 14;
    private static final int AT_ONCE = 50;
    private static final Duration TAKEN = Duration.ofMinutes(5);
    private static final Duration LONGEST_WAIT = Duration.ofHours(8);
    private static final String NOWHERE =
            "it waits: no mail server is set; an administrator sets LEVELTALLY_MAIL_HOST and starts again";
    private static final Logger LOG = LoggerFactory.getLogger(Postman.class);

    private final JdbcClient jdbc;
    private final JavaMailSender server;
    private final Enclosing enclosing;
    private final EnclosingSheet sheets;
    private final String from;
    private final boolean mayCarry;

    Postman(JdbcClient jdbc, JavaMailSender server, Enclosing enclosing, EnclosingSheet sheets, Settings settings) {
        this.sheets = sheets;
        this.enclosing = enclosing;
        this.jdbc = jdbc;
        this.server = server;
        this.from = settings.mail().from();
        this.mayCarry = settings.demo() || !settings.mail().host().isEmpty();
    }

    private record Waiting(
            long id,
            String address,
            String subject,
            String text,
            String html,
            int tries,
            @Nullable Long payment,
            @Nullable Sheet sheet,
            @Nullable String messageId) {
        boolean goesToPayee() {
            return payment != null || sheet != null;
        }
    }

    private record Sheet(VendorId vendor, LocalDate from, LocalDate to) {
        static @Nullable Sheet of(ResultSet r) throws SQLException {
            return r.getObject("vendor_id") == null
                    ? null
                    : new Sheet(
                            new VendorId(r.getLong("vendor_id")),
                            r.getObject("paid_from", LocalDate.class),
                            r.getObject("paid_to", LocalDate.class));
        }
    }

    @Scheduled(fixedDelayString = "${leveltally.mail.every}", initialDelayString = "${leveltally.mail.every}")
    void rounds() {
        carry(Instant.now());
    }

    /** Sends what waits now; answers how many were sent. */
    public int carry(Instant now) {
        if (!mayCarry) {
            jdbc.sql("UPDATE mail SET trouble = :why WHERE state = 'WAITING' AND trouble <> :why")
                    .param("why", NOWHERE)
                    .update();
            return 0;
        }
        List<Waiting> waiting = jdbc.sql("""
                        SELECT id, address, subject, text, html, tries, payment_id, vendor_id, paid_from, paid_to,
                          message_id FROM mail
                        WHERE state = 'WAITING' AND next_try_at <= :now AND (taken_until IS NULL OR taken_until <= NOW(6))
                        ORDER BY next_try_at, id LIMIT :most
                        """)
                .param("now", Timestamp.from(now))
                .param("most", AT_ONCE)
                .query((r, n) -> new Waiting(
                        r.getLong("id"),
                        r.getString("address"),
                        r.getString("subject"),
                        r.getString("text"),
                        r.getString("html"),
                        r.getInt("tries"),
                        r.getObject("payment_id", Long.class),
                        Sheet.of(r),
                        r.getString("message_id")))
                .list();
        int sent = 0;
        for (Waiting mail : waiting) {
            String lease = UUID.randomUUID().toString();
            if (isMine(mail.id(), lease) && send(mail, lease, now)) {
                sent++;
            }
        }
        return sent;
    }

    /** Takes a mail for a while by the database's clock, so that no other server process sends it as well. */
    private boolean isMine(long id, String lease) {
        return jdbc.sql(
                                "UPDATE mail SET taken_until = NOW(6) + INTERVAL :seconds SECOND, lease_token = :lease"
                                        + " WHERE id = :id AND state = 'WAITING' AND (taken_until IS NULL OR taken_until <= NOW(6))")
                        .param("seconds", TAKEN.toSeconds())
                        .param("lease", lease)
                        .param("id", id)
                        .update()
                == 1;
    }

    private boolean send(Waiting mail, String lease, Instant now) {
        try {
            MimeMessage message = server.createMimeMessage();
            MimeMessageHelper parts = new MimeMessageHelper(message, true, "UTF-8");
            parts.setFrom(from);
            parts.setTo(mail.address());
            parts.setSubject(mail.subject());
            parts.setText(mail.text(), mail.html());
            if (mail.messageId() != null) {
                message.setHeader("Message-ID", mail.messageId());
            }
            Enclosing.Enclosure list = enclosed(mail);
            if (list != null) {
                parts.addAttachment(list.name(), new ByteArrayResource(list.pdf()), "application/pdf");
            }
            server.send(message);
        } catch (MailException | MessagingException failed) {
            later(mail, lease, now, failed, String.valueOf(failed.getMessage()));
            return false;
        } catch (RuntimeException undrawn) {
            // one that cannot be drawn holds none of the others back
            LOG.warn("what mail {} encloses could not be drawn", mail.id(), undrawn);
            later(
                    mail,
                    lease,
                    now,
                    undrawn,
                    undrawn instanceof Refusal refused
                            ? refused.sentence()
                            : "the list it encloses could not be drawn; the log says why");
            return false;
        }
        jdbc.sql("UPDATE mail SET state = 'SENT', sent_at = ?, taken_until = NULL, tries = tries + 1, trouble = ''"
                        + " WHERE id = ? AND lease_token = ?")
                .params(Timestamp.from(now), mail.id(), lease)
                .update();
        return true;
    }

    private Enclosing.@Nullable Enclosure enclosed(Waiting mail) {
        Sheet sheet = mail.sheet();
        if (sheet != null) {
            return sheets.of(sheet.vendor(), sheet.from(), sheet.to());
        }
        return mail.payment() == null ? null : enclosing.of(new PaymentId(mail.payment()));
    }

    private void later(Waiting mail, String lease, Instant now, Exception failed, String said) {
        int tries = mail.tries() + 1;
        boolean refused = mail.goesToPayee() && AddressRefused.in(failed);
        Duration wait = Duration.ofSeconds(30).multipliedBy(1L << Math.min(tries, 12));
        String trouble = said.lines().findFirst().orElse("");
        LOG.info("mail {} failed for the {}. time: {}", mail.id(), tries, trouble);
        jdbc.sql("UPDATE mail SET state = ?, tries = ?, next_try_at = ?, taken_until = NULL, trouble = ?"
                        + " WHERE id = ? AND lease_token = ?")
                .params(
                        (refused ? MailState.RETURNED : tries >= MOST_TRIES ? MailState.GIVEN_UP : MailState.WAITING)
                                .name(),
                        tries,
                        Timestamp.from(now.plus(wait.compareTo(LONGEST_WAIT) < 0 ? wait : LONGEST_WAIT)),
                        trouble.substring(0, Math.min(300, trouble.length())),
                        mail.id(),
                        lease)
                .update();
    }
}
