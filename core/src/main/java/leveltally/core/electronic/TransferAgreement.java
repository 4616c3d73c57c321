package leveltally.core.electronic;

import java.io.IOException;
import java.io.OutputStream;
import java.time.LocalDate;
import java.util.Optional;
import leveltally.core.electronic.TransferSender.Charges;
import leveltally.core.electronic.TransferSender.Message;
import leveltally.core.money.Money;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import org.jspecify.annotations.Nullable;

/**
 * What was agreed on for files of credit transfers.
 *
 * @param message which version of the standard the bank reads
 * @param name the company's, at most 70 characters
 * @param id the company's number at its bank, at most 35 characters; empty where it has none
 * @param charges who bears them
 * @param structured whether each paid document is told by itself, not all of them as one text
 */
public record TransferAgreement(Message message, String name, String id, Charges charges, boolean structured)
        implements FileAgreement {
    private static final BankDetails ANY = new BankDetails("990044105", "0000");

    /** @throws leveltally.core.Refusal naming the field that has no place in the message */
    public TransferAgreement {
        new TransferSender(message, name, id, ANY, charges, structured);
    }

    @Override
    public Optional<Letters> letters() {
        return Optional.empty();
    }

    @Override
    public PaymentMethod method() {
        return PaymentMethod.CREDIT_TRANSFER;
    }

    @Override
    public void check(FiledPayment payment, LocalDate paysOn, BankDetails own) {
        transfer(payment);
    }

    @Override
    public void write(FileAbout about, FiledPayments payments, OutputStream out) throws IOException {
        TransferSender sender = new TransferSender(message, name, id, about.own(), charges, structured);
        TransferWriter.Sums sums = new TransferWriter.Sums(about.count(), about.total());
        TransferWriter writer = new TransferWriter(sender, about.id(), about.made(), sums, out);
        // one execution day, one group
        writer.begin(about.id() + "-1", about.paysOn(), sums);
        payments.each(payment -> writer.transfer(transfer(payment)));
        writer.end();
        writer.finish();
    }

    private static Transfer transfer(FiledPayment of) {
        return new Transfer(
                of.called(),
                of.amount(),
                of.account(),
                of.payee(),
                of.address(),
                of.documents().stream()
                        .map(one -> new Transfer.Paid(one.reference(), one.credit(), positive(one.paid())))
                        .toList());
    }

    /** A document of nothing is named without an amount. */
    private static @Nullable Money positive(Money amount) {
        return amount.isZero() || amount.isNegative() ? null : amount;
    }
}
