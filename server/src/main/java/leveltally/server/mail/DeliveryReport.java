package leveltally.server.mail;

import jakarta.mail.BodyPart;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.Part;
import jakarta.mail.internet.InternetHeaders;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/**
 * What a mail system reports of a mail that it could not deliver (RFC 3464 in RFC 6522).
 *
 * @param messageId of the mail it speaks of
 * @param why in the words of that system, at most 300 characters
 */
record DeliveryReport(String messageId, String why) {
    private static final int MOST_READ = 65_536;
    private static final int LONGEST_WHY = 300;

    /** Empty where it is no such report, or one that only speaks of a delay. */
    static Optional<DeliveryReport> of(Part mail) throws MessagingException, IOException {
        if (!mail.isMimeType("multipart/report") || !(mail.getContent() instanceof Multipart parts)) {
            return Optional.empty();
        }
        String why = "";
        String messageId = "";
        for (int i = 0; i < Math.min(parts.getCount(), 5); i++) {
            BodyPart part = parts.getBodyPart(i);
            if (part.isMimeType("message/delivery-status")) {
                why = failure(text(part));
            } else if (part.isMimeType("message/rfc822")
                    || part.isMimeType("text/rfc822-headers")
                    || part.isMimeType("message/rfc822-headers")) {
                messageId = header(text(part), "Message-ID");
            }
        }
        return why.isEmpty() || messageId.isEmpty()
                ? Optional.empty()
                : Optional.of(new DeliveryReport(messageId, why.substring(0, Math.min(LONGEST_WHY, why.length()))));
    }

    /** Why delivery failed for good, from the groups of fields; empty where it did not. */
    private static String failure(String status) throws MessagingException {
        for (String group : status.split("\\r?\\n[ \\t]*\\r?\\n")) {
            if (header(group, "Action").equalsIgnoreCase("failed")) {
                String said = header(group, "Diagnostic-Code").replaceFirst("^[^;]*;\\s*", "");
                return said.isEmpty() ? "delivery failed, status " + header(group, "Status") : said;
            }
        }
        return "";
    }

    private static String header(String lines, String name) throws MessagingException {
        InternetHeaders headers = new InternetHeaders(
                new ByteArrayInputStream((lines.strip() + "\r\n\r\n").getBytes(StandardCharsets.UTF_8)));
        String value = headers.getHeader(name, null);
        return value == null ? "" : value.replaceAll("\\s+", " ").strip();
    }

    private static String text(Part part) throws MessagingException, IOException {
        try (InputStream in = part.getInputStream()) {
            return new String(in.readNBytes(MOST_READ), StandardCharsets.UTF_8);
        }
    }
}
