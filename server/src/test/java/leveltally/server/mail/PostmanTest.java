package leveltally.server.mail;

import static leveltally.server.App.bean;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import jakarta.mail.internet.MimeMessage;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import leveltally.core.batches.BatchId;
import leveltally.server.App;
import leveltally.server.approval.Sending;
import leveltally.server.batches.Withdrawing;
import leveltally.server.frame.Settings;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.mail.MailSendException;
import org.springframework.mail.javamail.JavaMailSender;

/** A mail server that is down holds nothing back; its mail is tried again and stays visible. */
class PostmanTest {
    private final JdbcClient jdbc = App.jdbc();

    private static Postman withDeadServer() {
        JavaMailSender dead = mock(JavaMailSender.class);
        when(dead.createMimeMessage()).thenAnswer(call -> new MimeMessage((jakarta.mail.Session) null));
        doThrow(new MailSendException("Connection refused")).when(dead).send(any(MimeMessage.class));
        return new Postman(App.jdbc(), dead, bean(Enclosing.class), bean(EnclosingSheet.class), bean(Settings.class));
    }

    private static void drain() {
        while (bean(Postman.class).carry(Instant.now()) > 0) {
            // until nothing waits
        }
    }

    private String state(long mail) {
        return jdbc.sql("SELECT CONCAT(state, ' ', tries, ' ', trouble) FROM mail WHERE id = ?")
                .param(mail)
                .query(String.class)
                .single();
    }

    @Test
    void isTriedAgainLaterAndLaterGivenUpAndSentWhenAsked() {
        drain();
        Instant now = Instant.now();
        Letter letter = new Letter("Test\r\nBcc: x@y.example", List.of("A <b> & c."), List.of(), "Look", "/approval/1");
        bean(Outbox.class).put(Set.of(App.priya().person()), letter, now);
        long mail = App.number("SELECT MAX(id) FROM mail");
        assertThat(jdbc.sql("SELECT subject FROM mail WHERE id = ?")
                        .param(mail)
                        .query(String.class)
                        .single())
                .isEqualTo("Test Bcc: x@y.example");
        assertThat(jdbc.sql("SELECT html FROM mail WHERE id = ?")
                        .param(mail)
                        .query(String.class)
                        .single())
                .contains("A &lt;b&gt; &amp; c.");
        Postman dead = withDeadServer();
        dead.carry(now);
        assertThat(state(mail)).isEqualTo("WAITING 1 Connection refused");
        // not before its time
        dead.carry(now.plusSeconds(20));
        assertThat(state(mail)).isEqualTo("WAITING 1 Connection refused");
        for (int day = 1; state(mail).startsWith("WAITING"); day++) {
            dead.carry(now.plus(Duration.ofDays(day)));
        }
        assertThat(state(mail)).isEqualTo("GIVEN_UP " + Postman.MOST_TRIES + " Connection refused");
        bean(Outbox.class).again(App.ruth(), mail);
        bean(Postman.class).carry(Instant.now());
        assertThat(state(mail)).isEqualTo("SENT 1 ");
        assertThatThrownBy(() -> bean(Outbox.class).again(App.ruth(), mail)).hasMessageContaining("This mail was sent");
    }

    @Test
    void workGoesOnWhileMailFails() {
        drain();
        BatchId batch = App.draft(App.invoice("Bollard Foundry", "75.01"));
        bean(Sending.class).send(App.ines(), batch, App.version(batch));
        long asked = App.number("SELECT COUNT(*) FROM mail WHERE link = ?", "/approval/" + batch.value());
        assertThat(asked).isPositive();
        withDeadServer().carry(Instant.now());
        App.approve(batch);
        bean(Withdrawing.class).withdraw(App.ines(), batch, App.version(batch));
        assertThat(App.number(
                        "SELECT COUNT(*) FROM mail WHERE link = ? AND trouble <> ''", "/approval/" + batch.value()))
                .isEqualTo(asked);
    }
}
