package leveltally.server.mail;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.Flags;
import jakarta.mail.MessagingException;
import jakarta.mail.SendFailedException;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import leveltally.core.payments.PaymentId;
import leveltally.server.App;
import leveltally.server.frame.Settings;
import org.eclipse.angus.mail.smtp.SMTPAddressFailedException;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.mail.MailSendException;
import org.springframework.mail.javamail.JavaMailSender;

/** Advice that comes back is seen, whether its server refuses it at once or writes later. */
class ReturnedMailTest {
    private final JdbcClient jdbc = App.jdbc();

    private long advice(String subject) {
        PaymentId payment = new PaymentId(App.number(
                "SELECT MAX(p.id) FROM payment p JOIN document d ON d.payment_id = p.id WHERE d.kind = 'CHECK'"));
        App.bean(Outbox.class)
                .put(
                        List.of(new ToPayee(payment, "desk@gone.example", subject, "text", "<p>text</p>", "/register")),
                        Instant.now());
        return App.number("SELECT MAX(id) FROM mail");
    }

    private String state(long mail) {
        return jdbc.sql("SELECT CONCAT(state, ' ', trouble) FROM mail WHERE id = ?")
                .param(mail)
                .query(String.class)
                .single();
    }

    private static String report(String messageId, String action) {
        return """
                From: MAILER-DAEMON@mx.example
                To: payables@marrow.example
                Subject: Your mail
                MIME-Version: 1.0
                Content-Type: multipart/report; report-type=delivery-status; boundary="x"

                --x
                Content-Type: text/plain

                It could not be delivered.
                --x
                Content-Type: message/delivery-status

                Reporting-MTA: dns; mx.example

                Final-Recipient: rfc822; desk@gone.example
                Action: %s
                Status: 5.1.1
                Diagnostic-Code: smtp; 550 5.1.1 no such
                 mailbox here

                --x
                Content-Type: text/rfc822-headers

                Subject: Remittance advice
                Message-ID: %s

                --x--
                """.formatted(action, messageId).replace("\n", "\r\n");
    }

    @Test
    void aReportThatComesBackMarksItsMailAndNoOther() throws Exception {
        while (App.bean(Postman.class).carry(Instant.now()) > 0) {
            // until nothing waits
        }
        long gone = advice("gone");
        long slow = advice("slow");
        App.bean(Postman.class).carry(Instant.now());
        assertThat(List.of(state(gone), state(slow))).containsOnly("SENT ");
        GreenMail box = new GreenMail(new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_IMAP));
        box.start();
        try {
            var user = box.setUser("payables@marrow.example", "payables", "secret");
            for (String source : List.of(
                    "Subject: a letter\r\n\r\nnot a report",
                    "Subject: garbled\r\nContent-Type: multipart/report; boundary=\"y\"\r\n\r\n--z\r\n",
                    report(messageId(slow), "delayed"),
                    report("<unknown@mx.example>", "failed"),
                    report(messageId(gone), "failed"))) {
                user.deliver(new MimeMessage(
                        (Session) null, new ByteArrayInputStream(source.getBytes(StandardCharsets.US_ASCII))));
            }
            ReturnedMail returned = new ReturnedMail(
                    jdbc, at(new Settings.Returns("127.0.0.1", box.getImap().getPort(), "payables", "secret", false)));
            assertThat(returned.look()).isOne();
            assertThat(state(gone)).isEqualTo("RETURNED 550 5.1.1 no such mailbox here");
            assertThat(state(slow)).isEqualTo("SENT ");
            assertThat(returned.look()).as("each is read once").isZero();
            assertThat(Arrays.stream(box.getReceivedMessages())
                            .filter(one -> !seen(one))
                            .map(ReturnedMailTest::subject))
                    .as("what is no report stays unread for whoever reads it")
                    .containsExactly("a letter");
        } finally {
            box.stop();
        }
    }

    private static boolean seen(MimeMessage message) {
        try {
            return message.isSet(Flags.Flag.SEEN);
        } catch (MessagingException broken) {
            throw new IllegalStateException(broken);
        }
    }

    private static String subject(MimeMessage message) {
        try {
            return message.getSubject();
        } catch (MessagingException broken) {
            throw new IllegalStateException(broken);
        }
    }

    private String messageId(long mail) {
        return jdbc.sql("SELECT message_id FROM mail WHERE id = ?")
                .param(mail)
                .query(String.class)
                .single();
    }

    private static Settings at(Settings.Returns returns) {
        Settings settings = mock(Settings.class);
        when(settings.mail()).thenReturn(new Settings.Mail("", 25, "", "", false, "a@b.example", returns));
        return settings;
    }

    @Test
    void anAddressThatItsServerRefusesIsNotTriedForDays() throws Exception {
        long mail = advice("refused");
        JavaMailSender refusing = mock(JavaMailSender.class);
        when(refusing.createMimeMessage()).thenAnswer(call -> new MimeMessage((Session) null));
        SendFailedException failed = new SendFailedException(
                "Invalid Addresses",
                new SMTPAddressFailedException(
                        new InternetAddress("desk@gone.example"), "RCPT TO", 550, "550 5.1.1 unknown"));
        doThrow(new MailSendException(Map.of(new Object(), failed)))
                .when(refusing)
                .send(any(MimeMessage.class));
        new Postman(jdbc, refusing, App.bean(Enclosing.class), App.bean(EnclosingSheet.class), App.bean(Settings.class))
                .carry(Instant.now());
        assertThat(state(mail)).startsWith("RETURNED ");
    }

    @Test
    void oneThatCannotBeDrawnHoldsNoneBack() {
        long broken = advice("broken");
        Enclosing breaks = payment -> {
            throw new IllegalStateException("not drawn");
        };
        new Postman(
                        jdbc,
                        App.bean(JavaMailSender.class),
                        breaks,
                        App.bean(EnclosingSheet.class),
                        App.bean(Settings.class))
                .carry(Instant.now());
        assertThat(state(broken)).isEqualTo("WAITING the list it encloses could not be drawn; the log says why");
    }
}
