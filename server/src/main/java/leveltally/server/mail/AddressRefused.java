package leveltally.server.mail;

import jakarta.mail.MessagingException;
import org.eclipse.angus.mail.smtp.SMTPAddressFailedException;
import org.springframework.mail.MailSendException;

/** Tells a server that will never take mail for an address from one that is in trouble (RFC 5321, 4.2.1: replies 5yz). */
final class AddressRefused {
    private AddressRefused() {}

    static boolean in(Throwable failed) {
        if (failed instanceof MailSendException sending) {
            for (Exception one : sending.getMessageExceptions()) {
                if (in(one)) {
                    return true;
                }
            }
        }
        if (failed instanceof SMTPAddressFailedException address) {
            return address.getReturnCode() >= 500;
        }
        return failed instanceof MessagingException chained
                && chained.getNextException() != null
                && in(chained.getNextException());
    }
}
