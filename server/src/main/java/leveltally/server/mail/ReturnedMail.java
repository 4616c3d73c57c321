package leveltally.server.mail;

import jakarta.mail.Flags;
import jakarta.mail.Folder;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.Store;
import jakarta.mail.search.AndTerm;
import jakarta.mail.search.FlagTerm;
import jakarta.mail.search.HeaderTerm;
import java.io.IOException;
import java.util.Optional;
import java.util.Properties;
import leveltally.server.frame.Settings;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Looks into the mailbox that mail comes back to, and marks the advice that did. What else lies there is left as it is. */
@Component
public class ReturnedMail {
    private static final int MOST_AT_ONCE = 200;
    private static final String PATIENCE_MS = "10000";
    private static final Logger LOG = LoggerFactory.getLogger(ReturnedMail.class);

    private final JdbcClient jdbc;
    private final Settings.Returns mailbox;

    ReturnedMail(JdbcClient jdbc, Settings settings) {
        this.jdbc = jdbc;
        this.mailbox = settings.mail().returns();
    }

    @Scheduled(
            fixedDelayString = "${leveltally.mail.returns.every}",
            initialDelayString = "${leveltally.mail.returns.every}")
    void rounds() {
        if (mailbox.host().isEmpty()) {
            return;
        }
        try {
            look();
        } catch (MessagingException failed) {
            LOG.warn("the mailbox that mail comes back to could not be read: {}", failed.getMessage());
        }
    }

    /** @return how many mails were marked */
    int look() throws MessagingException {
        Properties patience = new Properties();
        for (String way : new String[] {"mail.imap", "mail.imaps"}) {
            patience.put(way + ".connectiontimeout", PATIENCE_MS);
            patience.put(way + ".timeout", PATIENCE_MS);
            patience.put(way + ".writetimeout", PATIENCE_MS);
            patience.put(way + ".partialfetch", "true");
        }
        try (Store store = Session.getInstance(patience).getStore(mailbox.tls() ? "imaps" : "imap")) {
            store.connect(mailbox.host(), mailbox.port(), mailbox.user(), mailbox.password());
            try (Folder inbox = store.getFolder("INBOX")) {
                inbox.open(Folder.READ_WRITE);
                return look(inbox);
            }
        }
    }

    private int look(Folder inbox) throws MessagingException {
        Message[] reports = inbox.search(new AndTerm(
                new FlagTerm(new Flags(Flags.Flag.SEEN), false), new HeaderTerm("Content-Type", "multipart/report")));
        int marked = 0;
        for (int i = 0; i < Math.min(reports.length, MOST_AT_ONCE); i++) {
            // seen first: one that cannot be read holds none of those behind it back
            reports[i].setFlag(Flags.Flag.SEEN, true);
            marked += read(reports[i]).map(this::mark).orElse(0);
        }
        return marked;
    }

    private static Optional<DeliveryReport> read(Message report) {
        try {
            return DeliveryReport.of(report);
        } catch (MessagingException | IOException | RuntimeException garbled) {
            LOG.warn("a report in the mailbox that mail comes back to cannot be read: {}", garbled.getMessage());
            return Optional.empty();
        }
    }

    private int mark(DeliveryReport report) {
        return jdbc.sql("UPDATE mail SET state = :returned, trouble = :why"
                        + " WHERE message_id = :message AND state = :sent")
                .param("returned", MailState.RETURNED.name())
                .param("why", report.why())
                .param("message", report.messageId())
                .param("sent", MailState.SENT.name())
                .update();
    }
}
