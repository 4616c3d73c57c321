package leveltally.server.mail;

import leveltally.core.payments.PaymentId;

/** Draws what is enclosed in a mail to a payee. It is drawn anew for each try, from what was kept when it was printed. */
public interface Enclosing {
    Enclosure of(PaymentId payment);

    /** A PDF with the name it is sent under. */
    record Enclosure(String name, byte[] pdf) {}
}
