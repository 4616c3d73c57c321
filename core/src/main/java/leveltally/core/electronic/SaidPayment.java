package leveltally.core.electronic;

/**
 * What the bytes of a file say of one payment.
 *
 * @param called the payment's reference
 * @param minor in minor units of the file's currency
 * @param account the IBAN or the account number of the payee
 * @param payee as the file names it, which may be cut and in other letters
 */
public record SaidPayment(String called, long minor, String account, String payee) {}
