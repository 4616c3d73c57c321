package leveltally.server.printing;

import java.util.List;
import leveltally.core.ledger.RoutingNumber;
import leveltally.core.printing.CheckForm;
import leveltally.core.printing.CheckLayout;
import leveltally.core.printing.CheckText;
import leveltally.core.printing.MicrPattern;
import leveltally.core.printing.Page;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.Company;
import org.springframework.stereotype.Component;

/** Lays out checks of our accounts: for the printer, for a marked copy, and for the slip. */
@Component
class CheckPages {
    static final String BLANK_STOCK = "BLANK";

    private final BankAccounts accounts;
    private final Typefaces typefaces;

    CheckPages(BankAccounts accounts, Typefaces typefaces) {
        this.accounts = accounts;
        this.typefaces = typefaces;
    }

    /** The payer of an account's checks. */
    CheckText.Payer payer(BankAccount account) {
        Company company = accounts.company();
        return new CheckText.Payer(
                company.name(),
                company.address(),
                account.bankName(),
                account.currencyWord(),
                account.validity(),
                new RoutingNumber(account.routingNumber()),
                account.accountNumber(),
                MicrPattern.read(account.micrPattern()),
                account.stock().equals(BLANK_STOCK));
    }

    Page check(CheckText text, CheckForm form, CheckLayout.Use use) {
        return CheckLayout.check(text, form, use, typefaces);
    }

    /** What goes on plain paper beside the check; empty when its stub lists everything. */
    List<Page> advice(CheckText text) {
        return CheckLayout.advice(text, CheckForm.LETTER, typefaces);
    }
}
