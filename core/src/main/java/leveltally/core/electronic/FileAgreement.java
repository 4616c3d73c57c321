package leveltally.core.electronic;

import java.io.IOException;
import java.io.OutputStream;
import java.time.LocalDate;
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

    /** Writes a file of all these payments, in their order; the stream stays open. */
    void write(FileAbout about, FiledPayments payments, OutputStream out) throws IOException;
}
