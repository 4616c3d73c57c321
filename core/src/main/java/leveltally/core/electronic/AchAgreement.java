package leveltally.core.electronic;

import java.io.IOException;
import java.io.OutputStream;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.money.Money;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.PaymentMethod;
import org.jspecify.annotations.Nullable;

/**
 * What was agreed on for ACH files.
 *
 * @param sender without the account that is debited
 * @param balanced whether each batch debits the company's account itself; the bank does that by itself otherwise
 * @param entryClass for whom the entries are, and how much each says
 * @param announcedDays so many banking days before money goes to an account for the first time it is announced by an entry of
 *     nothing (a prenotification); null where the bank does not want that
 */
public record AchAgreement(
        AchSender sender,
        boolean balanced,
        EntryClass entryClass,
        @Nullable Integer announcedDays) implements FileAgreement {
    private static final int MOST_DAYS = 10;

    /** Where no account is announced. */
    public AchAgreement(AchSender sender, boolean balanced, EntryClass entryClass) {
        this(sender, balanced, entryClass, null);
    }

    public AchAgreement {
        if (announcedDays != null && (announcedDays < 1 || announcedDays > MOST_DAYS)) {
            throw Refusal.invalidField(
                    "announced-days",
                    "announcedDays",
                    "A bank waits 1 to " + MOST_DAYS + " banking days after an announcement. Leave it empty for none.");
        }
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

    /** Writes a file that announces accounts and pays nothing: an entry of nothing for each, without addenda. */
    public void announce(FileAbout about, FiledPayments accounts, OutputStream out) throws IOException {
        EntryClass plain = entryClass == EntryClass.PPD ? EntryClass.PPD : EntryClass.CCD;
        // nothing is debited where nothing is paid
        AchWriter writer = new AchWriter(sender, about.made(), about.modifier(), out);
        AchBatches batches = new AchBatches(writer, plain, about.paysOn());
        accounts.each(account -> batches.put(new AchEntry(
                account.sequence(),
                new RoutingNumber(account.account().routing()),
                account.account().account(),
                account.account().savings(),
                Money.zero(account.amount().currency()),
                account.called(),
                account.payee(),
                List.of())));
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
