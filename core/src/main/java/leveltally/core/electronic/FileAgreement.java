package leveltally.core.electronic;

import java.io.IOException;
import java.io.OutputStream;
import java.time.LocalDate;
import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;

/** What a bank agreed on with the company for its files of payments; data of the way to pay, without an account number. */
public sealed interface FileAgreement permits AchAgreement, TransferAgreement {
    /** What its files carry. */
    PaymentMethod method();

    /**
     * @param own the account that is debited
     * @throws Refusal in a sentence, when the payment has no place in such a file
     */
    void check(FiledPayment payment, LocalDate paysOn, BankDetails own);

    /** The letter of the day that its files carry, by which the bank tells them apart; empty where their ids do that. */
    Optional<Letters> letters();

    /**
     * Letters of the day.
     *
     * @param group within which they are counted: from whom files come, and to whom they go
     */
    record Letters(String group) {
        /** As many files as can be told apart on one day: A to Z, then 0 to 9. */
        public static final int MOST = 36;
    }

    /** Writes a file of all these payments, in their order; the stream stays open. */
    void write(FileAbout about, FiledPayments payments, OutputStream out) throws IOException;
}
