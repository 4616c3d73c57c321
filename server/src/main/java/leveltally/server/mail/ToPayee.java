package leveltally.server.mail;

import leveltally.core.payments.PaymentId;

/**
 * A mail to the payee of a payment, with the list of what it is for enclosed.
 *
 * @param address empty where none is known: then it is kept as one that could not be sent
 * @param link where its payment is seen here
 */
public record ToPayee(PaymentId payment, String address, String subject, String text, String html, String link) {}
