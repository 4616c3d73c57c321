package leveltally.server.frame;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import org.springframework.boot.context.properties.ConfigurationProperties;

/**
 * What is configured from outside; see the README.
 *
 * @param demo made-up people, company and a fixed business date
 * @param sealKey seals bank account numbers at rest
 * @param setupCode lets the first administrator be made while nobody exists
 * @param proxies addresses of the proxies in front, whose forwarded headers are believed; nobody else's are
 * @param address where people reach the application: what links in mail begin with, without a slash at the end
 * @param mail the server that carries mail; without a host the stand-in mailbox takes it
 * @param practiceBank where the bank to practise on keeps its data; used in the demo only
 * @param bankFolders the folder below which files for banks may be laid and fetched; empty for none
 * @param printSystem host and port of the printing system whose queues are printed on; empty for this machine's own
 */
@ConfigurationProperties("leveltally")
public record Settings(
        boolean demo,
        LocalDate demoDate,
        String sealKey,
        ZoneId zone,
        String setupCode,
        List<String> proxies,
        String address,
        Mail mail,
        String practiceBank,
        String bankFolders,
        String printSystem) {
    /** An SMTP server; {@code tls} begins every talk with STARTTLS. */
    public record Mail(
            String host, int port, String user, String password, boolean tls, String from, Returns returns) {}

    /** The mailbox, by IMAP, that mail comes back to; without a host nobody looks. */
    public record Returns(String host, int port, String user, String password, boolean tls) {}

    public Settings {
        if (sealKey.length() < 16) {
            throw new IllegalArgumentException(
                    "leveltally.seal-key (LEVELTALLY_SEAL_KEY) needs at least 16 characters: it seals account numbers");
        }
        if (!printSystem.matches("([A-Za-z0-9\\[][A-Za-z0-9.:\\[\\]-]*)?")) {
            throw new IllegalArgumentException("leveltally.print-system (LEVELTALLY_PRINT_SYSTEM) takes a host, or host"
                    + " and port, such as printing.example:631; this is none: " + printSystem);
        }
        for (String proxy : proxies) {
            if (!proxy.matches("[0-9A-Fa-f.:]+")) {
                throw new IllegalArgumentException("leveltally.proxies (LEVELTALLY_PROXIES) takes addresses with commas"
                        + " between them, such as 10.0.0.5; this is none: " + proxy);
            }
        }
    }
}
