package leveltally.core.electronic;

import java.io.IOException;
import java.io.OutputStream;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;

/**
 * What was agreed on for ACH files.
 *
 * @param sender without the account that is debited
 * @param balanced whether each batch debits the company's account itself; the bank does that by itself otherwise
 * @param entryClass for whom the entries are, and how much each says
 */
public record AchAgreement(AchSender sender, boolean balanced, EntryClass entryClass) implements FileAgreement {
    public AchAgreement {
        if (sender.offset() != null) {
            throw new IllegalArgumentException("an agreement names no account number");
        }
    }

    @Override
    public Optional<Letters> letters() {
        return Optional.of(new Letters(
                "ACH " + sender.origin() + " to " + sender.destination().digits()));
    }

    @Override
    public PaymentMethod method() {
        return PaymentMethod.ACH;
    }

    @Override
    public void check(FiledPayment payment, LocalDate paysOn, BankDetails own) {
        entry(payment, paysOn, own);
    }

    @Override
    public void write(FileAbout about, FiledPayments payments, OutputStream out) throws IOException {
        AchWriter writer = new AchWriter(sending(about.own()), about.made(), about.modifier(), out);
        AchBatches batches = new AchBatches(writer, entryClass, about.paysOn());
        payments.each(payment -> batches.put(entry(payment, about.paysOn(), about.own())));
        batches.end();
        writer.finish();
    }

    private AchSender sending(BankDetails own) {
        return balanced ? sender.debiting(own.account()) : sender;
    }

    private AchEntry entry(FiledPayment of, LocalDate paysOn, BankDetails own) {
        if (of.account().kind() != BankDetails.Kind.ROUTED) {
            throw Refusal.invalid("ach-routing", "ACH reaches a routing number with an account number, not an IBAN.");
        }
        List<String> addenda = entryClass == EntryClass.CTX
                ? AchRemittance.inMany(sending(own), of, paysOn)
                : AchRemittance.inOne(of.documents(), of.called());
        if (addenda.size() > entryClass.mostAddenda()) {
            throw Refusal.invalid("ach-addenda", "It pays more documents than the addenda of one entry can name.");
        }
        return new AchEntry(
                of.sequence(),
                new RoutingNumber(of.account().routing()),
                of.account().account(),
                of.account().savings(),
                of.amount(),
                of.called(),
                of.payee(),
                addenda);
    }
}
