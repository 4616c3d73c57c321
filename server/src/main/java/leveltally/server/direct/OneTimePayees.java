package leveltally.server.direct;

import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.people.Actor;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.Paperwork;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.Reportable;
import leveltally.core.vendors.TwoPeople;
import leveltally.core.vendors.VendorFacts;
import leveltally.core.vendors.VendorId;
import leveltally.server.company.Companies;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.vendors.VendorRecords;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Payees who are paid once: entered beside the payment, with no more than it takes. */
@Service
public class OneTimePayees {
    static final String GROUP = "Paid once";
    private static final int PRIORITY = 5;

    private final VendorRecords records;
    private final Vendors vendors;
    private final BankAccounts accounts;
    private final Companies companies;

    OneTimePayees(VendorRecords records, Vendors vendors, BankAccounts accounts, Companies companies) {
        this.records = records;
        this.vendors = vendors;
        this.accounts = accounts;
        this.companies = companies;
    }

    /**
     * Whom to enter.
     *
     * @param way what pays it, from which its currency follows
     * @param bank null where a check is enough
     */
    public record Wanted(
            String name,
            List<String> address,
            String postalCode,
            BankAccountId account,
            WayId way,
            @Nullable BankDetails bank) {}

    /** @param waits whether a second person confirms it before a payment to it can be sent */
    public record Entered(long vendor, String number, boolean waits) {}

    @Transactional
    public Entered enter(Actor by, Wanted wanted) {
        BankAccount account = accounts.get(wanted.account());
        PaymentMethod method = account.payingWay(wanted.way()).method();
        if (method != PaymentMethod.CHECK && wanted.bank() == null) {
            throw Refusal.invalidField(
                    "bank-missing",
                    "account",
                    "To be paid by " + method.words()
                            + " it needs an account. Type its bank details, or pay by check.");
        }
        VendorId id = records.enter(
                by,
                new VendorRecords.New(
                        "",
                        new VendorFacts(
                                wanted.name(), GROUP, PRIORITY, method, Terms.net(0), Paperwork.USUAL, Reportable.NO),
                        account.currency(),
                        true,
                        null,
                        new RemitTo(
                                wanted.name().isBlank() ? "?" : wanted.name().strip(), wanted.address()),
                        wanted.postalCode(),
                        wanted.bank()));
        return new Entered(
                id.value(),
                vendors.get(id).number(),
                TwoPeople.mustAgree(method, true, companies.company().oneTimeByTwo()));
    }
}
