package leveltally.server.mail;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import java.util.Properties;
import leveltally.server.frame.Settings;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.mail.javamail.JavaMailSender;
import org.springframework.mail.javamail.JavaMailSenderImpl;

/** The server that carries mail: a real one where one is configured, the stand-in mailbox otherwise. */
@Configuration
class MailServer {
    private static final String PATIENCE_MS = "10000";

    /** Takes mail by SMTP on loopback and keeps it in memory; it runs only where no real server is configured. */
    @Bean(destroyMethod = "stop")
    GreenMail standInMailbox(Settings settings) {
        GreenMail mailbox = new GreenMail(new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_SMTP));
        if (settings.mail().host().isEmpty()) {
            mailbox.start();
        }
        return mailbox;
    }

    @Bean
    JavaMailSender mailSender(Settings settings, GreenMail standIn) {
        Settings.Mail mail = settings.mail();
        JavaMailSenderImpl sender = new JavaMailSenderImpl();
        boolean real = !mail.host().isEmpty();
        sender.setHost(real ? mail.host() : "127.0.0.1");
        sender.setPort(real ? mail.port() : standIn.getSmtp().getPort());
        sender.setDefaultEncoding("UTF-8");
        Properties properties = sender.getJavaMailProperties();
        properties.put("mail.smtp.connectiontimeout", PATIENCE_MS);
        properties.put("mail.smtp.timeout", PATIENCE_MS);
        properties.put("mail.smtp.writetimeout", PATIENCE_MS);
        if (real && mail.tls()) {
            properties.put("mail.smtp.starttls.enable", "true");
            properties.put("mail.smtp.starttls.required", "true");
        }
        if (real && !mail.user().isEmpty()) {
            sender.setUsername(mail.user());
            sender.setPassword(mail.password());
            properties.put("mail.smtp.auth", "true");
        }
        return sender;
    }
}
